import { MeasureSurface } from '@/features/measure/MeasureSurface';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Measure a colour' };

export default function Page() {
  return <MeasureSurface />;
}
