// The few host things that are the same in a page, a worker and Node.
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>;
}
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(bytes: Uint8Array): string;
}
