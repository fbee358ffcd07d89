export * from './set-files';
