export { followLines } from '@mirrot/core';
