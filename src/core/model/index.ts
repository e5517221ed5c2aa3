export { withArticle } from './article';
export { ACCOUNT_FIELDS, accountFault } from './account';
export { hostOf } from './outside';
export { FORMS_OF_TEXT, TEXT_FORMS } from './text-form';
export { dayInWords, isDate, readDay } from './day';
export {
  type Action,
  type Area,
  type Chart,
  type ChartShows,
  type Closed,
  type Column,
  type Definition,
  type Entity,
  type Effect,
  type EntityField,
  type FieldPart,
  FORMAT,
  type Group,
  type HandOut,
  type List,
  type MenuItem,
  type NamedCondition,
  type Part,
  type Privilege,
  type PrivilegeGroup,
  type Role,
  type Menu,
  type Screen,
  type SessionSetting,
  type TextCheck,
  type TextForm,
  type Unit,
} from './definition';
export { findElements } from './find';
export { type Gate, gives, type Line, sameWho, type What, type Who } from './gate';
export { findDanglingReferences } from './dangling-references';
export { type Id, newId, newUuid } from './id';
export { isMoment } from './moment';
export { ordered } from './ordered';
export { privilegesInLists, privilegesOf } from './privileges';
export { ok, type Problem } from './problem';
export { sameJson } from './same-json';
export { withSameParts } from './same-parts';
export { conditionSchema, LIST_SCHEMAS, MOST_VALUES, typeSchema } from './schema';
export { checkShape, exactly, listOf, mapOf, oneOf, optional, shapeFaults } from './shape';
export { placeOf, type Placed, type Slot } from './slots';
export {
  type AppElement,
  type ElementKind,
  frameOf,
  isDataDoor,
  menusOf,
  treeOf,
  withIncluded,
} from './tree';
export { unitAndBelow, unitIds, unitsOf } from './units';
export { unknownSettings } from './unknown-settings';
export { upgradeDefinition, upgradeEdit } from './upgrade';
export { readValue } from './value';
export { kindOf, listedIn, readerOf, showValue, textOf, typeKey, typesToChoose } from './values';
export type { DisplayFormat } from './values/formats';
export type { Literal, Named, Pointing } from './values/kind';
export { isStorable } from './values/text';
export type { ChoiceOption, Value, Values, ValueType } from './value-type';
export { outOfBounds } from './bounds';
