// What a pedal can be told to do: the list one chooses from. A page that only plays has no need of it.

export { actsFound, actsOffered, turnsOffered } from './live/doing/offered';
