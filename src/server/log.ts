export { log } from './front/log.mjs';
export { rootOf, errorForLog } from './front/log-error.mjs';
