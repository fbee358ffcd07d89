export * from './occurrences';
export { DAY, dayOf, dayText, secondsOf, weekdayOf, written } from './wall';
