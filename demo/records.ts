import type { RecordItem } from '@/core/records/record-schema';
import { garageRecords } from './garage';
import { placeRecords } from './places';
import { tariffRecords } from './scenario';

/** Every record of the demo, in the order in which one refers to another. @param photo SHA-256 of its one picture */
export const demoRecords = (photo: string | null = null): RecordItem[] => [...placeRecords(photo), ...garageRecords(), ...tariffRecords()];
