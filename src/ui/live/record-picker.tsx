'use client';

import { useEffect, useId, useRef, useState, type KeyboardEvent, type Ref } from 'react';
import { useHost, type Option } from './host';

interface Props {
  readonly id: string;
  readonly entity: string;
  readonly value: string;
  /** The label of the value, where it is still the one that the page came with. */
  readonly label: string | undefined;
  readonly onChange: (id: string) => void;
  readonly onBlur: () => void;
  readonly inputRef: Ref<HTMLInputElement>;
  readonly describedBy: string | undefined;
}

/**
 * Picks a record by searching: a combobox (WAI-ARIA 1.2) over what the server offers, which is only what
 * the viewer may see.
 */
export function RecordPicker({ inputRef, ...props }: Props) {
  const { id, entity, value, onChange } = props;
  const host = useHost();
  const listId = useId();
  const [chosen, setChosen] = useState<Option | undefined>();
  const [typed, setTyped] = useState<string | undefined>();
  const [options, setOptions] = useState<readonly Option[]>([]);
  const [active, setActive] = useState(0);
  const latest = useRef(0);
  const open = typed !== undefined;
  const label = value === '' ? '' : chosen?.id === value ? chosen.label : (props.label ?? value);

  useEffect(() => {
    if (typed === undefined) return;
    const turn = ++latest.current;
    const timer = setTimeout(() => {
      void host.records.search(entity, typed).then((found) => {
        if (turn !== latest.current) return;
        setOptions(found);
        setActive(0);
      });
    }, 150);
    return () => clearTimeout(timer);
  }, [typed, entity, host.records]);

  const pick = (option: Option | undefined): void => {
    setChosen(option);
    onChange(option?.id ?? '');
    setTyped(undefined);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      if (!open) setTyped('');
      const step = event.key === 'ArrowDown' ? 1 : -1;
      setActive((now) => Math.max(0, Math.min(options.length - 1, now + step)));
    } else if (event.key === 'Enter' && open) {
      event.preventDefault();
      if (options[active]) pick(options[active]);
    } else if (event.key === 'Escape' && open) {
      event.stopPropagation();
      setTyped(undefined);
    }
  };
  return (
    <div className="relative">
      <input
        id={id}
        ref={inputRef}
        type="text"
        role="combobox"
        autoComplete="off"
        aria-expanded={open}
        aria-controls={listId}
        aria-activedescendant={open && options[active] ? `${listId}-${active}` : undefined}
        aria-invalid={props.describedBy ? true : undefined}
        aria-describedby={props.describedBy}
        className="field-box"
        placeholder="Type to search"
        value={typed ?? label}
        onChange={(event) => {
          setTyped(event.target.value);
          if (event.target.value === '') onChange('');
        }}
        onFocus={(event) => event.target.select()}
        onKeyDown={onKeyDown}
        onBlur={() => {
          setTyped(undefined);
          props.onBlur();
        }}
      />
      {open && (
        <ul
          id={listId}
          role="listbox"
          className="absolute z-10 mt-0.5 max-h-64 w-full overflow-auto border border-edge bg-paper shadow-md"
        >
          {options.map((option, n) => (
            <li
              key={option.id}
              id={`${listId}-${n}`}
              role="option"
              aria-selected={n === active}
              className={`cursor-pointer px-2 py-1 ${n === active ? 'bg-open-soft' : ''}`}
              // Before the blur, which closes the list.
              onMouseDown={(event) => {
                event.preventDefault();
                pick(option);
              }}
            >
              {option.label}
            </li>
          ))}
          {options.length === 0 && <li className="px-2 py-1 text-quiet">Nothing found</li>}
        </ul>
      )}
    </div>
  );
}
