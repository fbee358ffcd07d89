import { LargePlace } from '../../features/gig/stage/LargePlace';

export default function Large() {
  return <LargePlace />;
}
