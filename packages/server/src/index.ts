export { createServer, projectJsonSchema, type ServerOptions } from './server.ts';
export { openDatabase, UnusableDatabase, type Database } from './storage/database.ts';
export { loadDemos } from './storage/load-demos.ts';
export { createProjectStore } from './storage/projects.ts';
export { serve, type Serving, type ServeOptions } from './serve.ts';
