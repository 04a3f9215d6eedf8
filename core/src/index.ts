// The public face: a room each, by itself as @mirrot/core/path and so on, and all of them here.
export { MirrotError } from './error';
export { seeded } from './seed';
export * from './geometry/index';
export * from './colour/index';
export * from './path/index';
export * from './picture/index';
export * from './art/index';
export * from './trace/index';
export * from './formats/index';
export * from './plot/index';
export * from './proof/index';
export * from './practice/index';
