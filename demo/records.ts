import type { RecordItem } from '@/core/records/record-schema';
import { garageRecords } from './garage';
import { placeRecords } from './places';
import { priceRecords } from './prices';
import { tariffRecords } from './scenario';

/** Every record of the demo, in the order in which one refers to another. @param photo SHA-256 of its one picture */
export function demoRecords(photo: string | null = null): RecordItem[] {
  const others = [...placeRecords(photo), ...garageRecords(), ...tariffRecords()];
  return [...others, ...priceRecords(others)];
}
