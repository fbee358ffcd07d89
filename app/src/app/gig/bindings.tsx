import { BindingsPlace } from '../../features/gig/pedal/BindingsPlace';

export default function Bindings() {
  return <BindingsPlace />;
}
