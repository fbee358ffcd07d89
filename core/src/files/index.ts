export * from './hovlix/bundle';
