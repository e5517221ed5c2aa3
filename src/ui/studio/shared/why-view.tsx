'use client';

import type { Compiled, Decided, Explanation, InactiveLine } from '@/core/access';
import type { ConditionStep } from '@/core/condition';
import { answerInWords, handleName, kindInWords, lineInWords, type PersonName } from '@/core/edit';
import { type AppElement, gives, isDataDoor, type Line } from '@/core/model';
import { OverrideSelect, withOverride, type ConditionOverrides } from './condition-overrides';
import { LevelMark } from './level-mark';

const LIST = new Intl.ListFormat('en-GB');

interface Props {
  readonly compiled: Compiled;
  readonly explanation: Explanation;
  readonly element: AppElement;
  readonly viewerName: string;
  readonly personName: PersonName;
  /** Leads to the gate of an element. */
  readonly onGate: (id: string) => void;
  /** Takes the conditions of lines as true or as false, where one looks in a pane. */
  readonly taking?: {
    readonly taken: ConditionOverrides;
    readonly onTake: (taken: ConditionOverrides) => void;
  };
}

/** Why a viewer has a level: what decided, the way there, and the lines that would have counted but for something. */
export function WhyView(props: Props) {
  const { compiled, explanation, element, viewerName, onGate } = props;
  const { answer, steps, decided, nameClosed } = explanation;
  const deciding = 'gate' in decided ? decided.gate : decided.door;
  return (
    <div>
      <h3 className="mb-1 font-semibold">
        Why {viewerName} has “{answerInWords(element.kind, answer)}”: {element.name}
      </h3>
      <p className="mb-2">{inWords(props, decided)}</p>
      {nameClosed && (
        <p className="mb-2">
          It points to {compiled.tree.get(nameClosed.entity)?.name}, whose name is closed to {viewerName}
          {nameClosed.always ? ': the field stays empty.' : ' for some of them: there the field stays empty.'}
        </p>
      )}
      {decided.by === 'line' && decided.told && decided.told.length > 0 && (
        <ul aria-label="Condition" className="mb-2 ml-5 border-l-2 border-rule pl-2 text-[13px] text-quiet">
          {decided.told.map((told) => (
            <li key={told.question}>
              <ToldView told={told} />
            </li>
          ))}
        </ul>
      )}
      {props.taking && decided.by === 'line' && decided.line.when && (
        <OverrideSelect
          who={lineInWords(decided.line, decided.gate, compiled.definition, props.personName)}
          as={props.taking.taken[decided.line.id]}
          onTake={(as) => props.taking?.onTake(withOverride(props.taking.taken, decided.line.id, as))}
        />
      )}
      <ol className="grid gap-0.5">
        {steps.map(({ element: id, gate, result, nearly }) => {
          const step = compiled.tree.get(id);
          if (!step) return null;
          return (
            <li key={id}>
              <div className={`flex items-center gap-2 ${id === deciding ? 'font-semibold' : ''}`}>
                <LevelMark answer={result} label={answerInWords(step.kind, result)} />
                <button
                  type="button"
                  title="Open gate"
                  className="min-h-[24px] min-w-0 truncate text-left hover:underline"
                  onClick={() => onGate(id)}
                >
                  {isDataDoor(step) ? `Door: ${step.name}` : step.name}
                </button>
                <span className="ml-auto shrink-0 text-[12px] font-normal text-quiet">
                  {gate === 'own' ? 'own lines' : 'follows'}
                </span>
              </div>
              {nearly.map((one) => (
                <NearlyView key={one.line.id} {...props} step={step} nearly={one} />
              ))}
            </li>
          );
        })}
      </ol>
    </div>
  );
}

/** A line that speaks of the viewer and does not count, with what keeps it from counting. */
function NearlyView({
  compiled,
  viewerName,
  personName,
  step,
  taking,
  nearly: { line, since },
}: Props & { step: AppElement; nearly: InactiveLine }) {
  return (
    <div className="mb-1 ml-5 border-l-2 border-rule pl-2 text-[13px]">
      <p>
        Does not apply: <q>{lineInWords(line, step.id, compiled.definition, personName)}</q>
      </p>
      {taking && line.when && (
        <OverrideSelect
          who={lineInWords(line, step.id, compiled.definition, personName)}
          as={taking.taken[line.id]}
          onTake={(as) => taking.onTake(withOverride(taking.taken, line.id, as))}
        />
      )}
      {since.map((one) => (
        <div key={one.is} className="text-quiet">
          {one.is === 'unit' && <p>{viewerName} has this only for records of other units.</p>}
          {one.is === 'period' && (
            <p>
              {viewerName} has this {one.from && `from ${dayOf(one.from)} `}
              {one.until && `until ${dayOf(one.until)}`}, so not at this time.
            </p>
          )}
          {one.is === 'group' && <p>{viewerName} is not in this group:</p>}
          {(one.is === 'when' || one.is === 'group') && one.told.some((told) => told.answer !== true) && (
            <ul>
              {one.told
                .filter((told) => told.answer !== true)
                .map((told) => (
                  <li key={told.question}>
                    <ToldView told={told} />
                  </li>
                ))}
            </ul>
          )}
        </div>
      ))}
    </div>
  );
}

const dayOf = (moment: string): string => moment.slice(0, 10);

function ToldView({ told: { question, answer, differs, values } }: { told: ConditionStep }) {
  return (
    <>
      <code className="font-mono text-[12px] text-ink">{question}</code>{' '}
      {differs
        ? 'differs from person to person'
        : answer === undefined
          ? 'cannot be determined'
          : answer
            ? 'is true'
            : 'is false'}
      {values.length > 0 && `: ${values.map(({ name, value }) => `${name} is ${value}`).join(', ')}`}
    </>
  );
}

/** What decided, in a sentence. */
function inWords(
  { compiled, element, viewerName, personName, explanation }: Props,
  decided: Decided,
): string {
  const nameOf = (id: string): string => {
    const one = compiled.tree.get(id);
    // A menu item and the screen that it leads to are often called the same.
    const alike = one && one.id !== element.id && one.name === element.name;
    return alike ? `The ${kindInWords(one.kind).toLowerCase()} ${one.name}` : (one?.name ?? id);
  };
  const handle = (id: string): string => {
    const element = compiled.tree.get(id);
    return element ? handleName(element) : id;
  };
  const quoted = (gate: string, lines: readonly Line[]): string =>
    LIST.format(lines.map((one) => `“${lineInWords(one, gate, compiled.definition, personName)}”`));
  switch (decided.by) {
    case 'line': {
      const { line, also, gate } = decided;
      const does = gives(line) ? 'which gives this access' : 'which removes this access';
      const others = also.length === 0 ? '' : ` Without it, ${quoted(gate, also)} would do the same.`;
      return `${nameOf(gate)} has the line ${quoted(gate, [line])}, ${does}.${others}`;
    }
    case 'no-line': {
      const nearly = explanation.steps.find((one) => one.element === decided.gate)?.nearly ?? [];
      const { also, gate } = decided;
      const takes = also.length === 0 ? '' : ` Even if one did, ${quoted(gate, also)} would block it.`;
      if (nearly.length > 0)
        return `${nameOf(gate)} has its own lines, and none that applies here and now gives ${viewerName} access.${takes}`;
      return `${nameOf(gate)} has its own lines, and none of them gives ${viewerName} access.${takes}`;
    }
    case 'handles':
      return `The data follows the screens and is opened by ${decided.handles.map(handle).join(', ')}.`;
    case 'no-handle':
      return `${nameOf(decided.door)} follows the screens, and no screen that ${viewerName} can open shows it.`;
  }
}
