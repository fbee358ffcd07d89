// OSC that presses and moves: read, done and answered on the computer that conducts. A page cannot hear it.

export * from './hear';
export * from './answers';
