// One piece for the bundler: both are ZIP files.

export * from '@hovlix/core/files';
export * from '@hovlix/core/gdtf';
