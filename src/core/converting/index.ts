/** What becomes of records whose fields hold something else from now on. */
export { convert } from './convert';
export { type Conversion, conversionsOf, type Lost, lostBetween } from './conversions';
