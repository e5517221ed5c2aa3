'use client';

import { privilegesInLists } from '@/core/model';
import { OperandPicker } from './operand-picker';
import { Comparing, without } from './comparing';
import { HeldSelect, NameSelect } from './named-select';
import type { Props } from './props';
import { Checkbox } from '@/ui/parts/checkbox';

/** The rest of a row: the operator, and what it is compared with. */
export function ConditionDetails({
  scope,
  condition,
  onChange,
}: Pick<Props, 'scope' | 'condition' | 'onChange'>) {
  const { definition } = scope;
  if ('hasRole' in condition)
    return (
      <>
        <NameSelect
          label="Role"
          among={definition.roles}
          value={condition.hasRole}
          onChange={(hasRole) => onChange({ ...condition, hasRole })}
        />
        <HeldSelect condition={condition} onChange={onChange} />
        <Checkbox
          checked={condition.exactly ?? false}
          onTurn={(on) => onChange(without(condition, 'exactly', on ? true : undefined))}
        >
          directly assigned only
        </Checkbox>
      </>
    );
  if ('hasPrivilege' in condition)
    return (
      <>
        <NameSelect
          label="Privilege"
          among={privilegesInLists(definition)}
          value={condition.hasPrivilege}
          onChange={(hasPrivilege) => onChange({ ...condition, hasPrivilege })}
        />
        <HeldSelect condition={condition} onChange={onChange} />
      </>
    );
  if ('inGroup' in condition)
    return (
      <NameSelect
        label="Group"
        among={definition.groups}
        value={condition.inGroup}
        onChange={(inGroup) => onChange({ inGroup })}
      />
    );
  if ('meets' in condition)
    return (
      <NameSelect
        label="Named condition"
        among={definition.conditions.filter(
          (one) => one.entity === undefined || one.entity === scope.entity?.id,
        )}
        value={condition.meets}
        onChange={(meets) => onChange({ meets })}
      />
    );
  if ('call' in condition)
    return (
      <>
        {condition.with.map((one, n) => (
          <OperandPicker
            key={n}
            scope={scope}
            type={{ kind: 'date' }}
            operand={one}
            onChange={(next) => onChange({ ...condition, with: condition.with.with(n, next) })}
          />
        ))}
      </>
    );
  return <Comparing scope={scope} condition={condition} onChange={onChange} />;
}
