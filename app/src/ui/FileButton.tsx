// A button that opens the device's own dialog to choose files.

import { useRef, type ReactNode } from 'react';
import { Button } from './pieces';

type Props = {
  readonly label: string;
  readonly accept: string;
  readonly onFiles: (files: File[]) => void;
  readonly multiple?: boolean;
  readonly primary?: boolean;
  readonly children: ReactNode;
};

export function FileButton({ label, accept, onFiles, multiple = false, primary = false, children }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={multiple}
        aria-label={label}
        hidden
        onChange={(event) => {
          onFiles([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button kind={primary ? 'primary' : 'plain'} onPress={() => input.current?.click()}>
        {children}
      </Button>
    </>
  );
}
