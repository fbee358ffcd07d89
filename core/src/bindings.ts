// All that is bound, as a list: asked for on one page.

export { bindingsOf, type Binding, type OwnKey } from './live/doing/bindings';
