/**
 * What a record itself says under a name that may come from outside. A plain lookup would also find what every object
 * inherits: `constructor`, `toString`, `__proto__`.
 */
export function own<T>(record: Readonly<Record<string, T>> | undefined, name: string): T | undefined {
  return record !== undefined && Object.hasOwn(record, name) ? record[name] : undefined;
}
