export { log } from './front/log.mjs';
export { rootOf, told } from './front/told.mjs';
