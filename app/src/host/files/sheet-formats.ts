// One piece for the bundler: both write tables.

export * from '@hovlix/core/paper';
export * from '@hovlix/core/set';
