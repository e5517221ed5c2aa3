/** What becomes of records whose fields hold something else from now on. */
export { convert, type Pointing, readerOf, textOf } from './convert';
export { type Conversion, conversionsOf, type Lost, lostBetween, typeKey } from './conversions';
