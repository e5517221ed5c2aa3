'use client';

import { type MouseEvent, useState } from 'react';

interface Props {
  readonly label: string;
  /** Endings and media types, as an input of files takes them. */
  readonly accept: string;
  readonly multiple?: boolean;
  readonly disabled?: boolean;
  readonly onFiles: (files: readonly File[]) => void;
}

/** A file that was corrected has the same name, and is read again all the same. */
const chooseAgain = ({ currentTarget }: MouseEvent<HTMLInputElement>): void => {
  currentTarget.value = '';
};

/** Takes files: they are chosen, or dropped on it. */
export function FileField({ label, accept, multiple = false, disabled = false, onFiles }: Props) {
  const [over, setOver] = useState(false);
  return (
    <label
      className={`grid max-w-3xl gap-1 border border-dashed px-3 py-2 ${over ? 'border-open bg-open-pale' : 'border-edge'}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(!disabled);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const files = [...event.dataTransfer.files];
        if (!disabled && files.length > 0) onFiles(multiple ? files : files.slice(0, 1));
      }}
    >
      <span>
        {label}{' '}
        <span className="text-quiet">(choose {multiple ? 'them or drop them' : 'it or drop it'} here)</span>
      </span>
      <input
        type="file"
        accept={accept}
        multiple={multiple}
        disabled={disabled}
        onClick={chooseAgain}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          if (files.length > 0) onFiles(files);
        }}
      />
    </label>
  );
}
