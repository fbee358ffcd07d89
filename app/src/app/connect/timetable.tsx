import { TimetablePlace } from '../../features/connect/timetable/TimetablePlace';

export default function Timetable() {
  return <TimetablePlace />;
}
