'use client';
import { Sheet } from '@/ui/pads/sheet';
import { paidBy } from '../live-pads';
import type { Plain } from '../open-sheet';
import type { Draft } from '../stall-state';
import type { UsualMeans } from '../usual-means';
import { Plate, PlateList } from './plate-list';

type Act = { label: string; draft: Draft } | { label: string; sheet: Plain };

/** Every other thing that can be recorded, in the order of a visit. A label that ends in … asks for more before it records. */
export function MoreSheet({
  means,
  stallId,
  connectors,
  enrolments,
  prices,
  onClose,
  onAct,
  onSheet,
  onAnother,
}: {
  means: UsualMeans;
  stallId: string | null;
  /** The other connectors of the stall stood at: each is changed to by one touch. */
  connectors: readonly string[];
  /** Some enrolment with this network is not through. */
  enrolments: boolean;
  /** Prices of the place can be added and changed. */
  prices: boolean;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
  onSheet: (sheet: Plain) => void;
  onAnother: () => void;
}) {
  const paid = paidBy(means);
  const sections: { title: string; acts: Act[] }[] = [
    {
      title: 'Often',
      acts: [
        { label: 'Helpline …', sheet: 'help' },
        { label: 'Reading …', sheet: 'reading' },
        { label: 'Another stall …', sheet: 'stall' },
        ...(stallId === null
          ? []
          : connectors.map((c): Act => ({ label: `Connector: ${c}`, draft: { kind: 'stall_chosen', payload: { stallId, connectorId: c } } }))),
        { label: 'Other means …', sheet: 'means' },
        { label: 'Note …', sheet: 'note' },
        { label: 'Photo …', sheet: 'photo' },
      ],
    },
    {
      title: 'Arriving',
      acts: [
        { label: 'Look at the bays …', sheet: 'survey' },
        { label: 'Figures on arrival …', sheet: 'arrival' },
        { label: 'Queue joined', draft: { kind: 'queue_joined', payload: {} } },
        { label: 'Stall free', draft: { kind: 'stall_free', payload: {} } },
        { label: 'Reserved', draft: { kind: 'reserved', payload: {} } },
        { label: 'Reservation released', draft: { kind: 'released', payload: {} } },
      ],
    },
    {
      title: 'Starting',
      acts: [
        { label: 'Handle taken', draft: { kind: 'first_act', payload: { what: 'handle' } } },
        { label: 'App opened', draft: { kind: 'first_act', payload: { what: 'app' } } },
        { label: 'Kiosk touched', draft: { kind: 'first_act', payload: { what: 'kiosk' } } },
        { label: 'Named in the app …', sheet: 'named' },
        ...(enrolments ? [{ label: 'Enrolment steps …', sheet: 'enrolments' as const }] : []),
        { label: 'Adapter fitted …', sheet: 'adapter' },
        { label: 'Plugged in', draft: { kind: 'plugged', payload: {} } },
      ],
    },
    {
      title: 'Paying',
      acts: [
        { label: 'Price shown …', sheet: 'price' },
        ...(prices ? [{ label: 'Prices here …', sheet: 'prices' as const }] : []),
        { label: 'Accepted', draft: { kind: 'means_accepted', payload: paid } },
        { label: 'Refused', draft: { kind: 'means_refused', payload: paid } },
      ],
    },
    {
      title: 'It claims to charge',
      acts: [
        { label: 'On the screen', draft: { kind: 'claimed', payload: { by: 'screen' } } },
        { label: 'By a light', draft: { kind: 'claimed', payload: { by: 'light' } } },
        { label: 'By a beep', draft: { kind: 'claimed', payload: { by: 'beep' } } },
        { label: 'In the app', draft: { kind: 'claimed', payload: { by: 'app' } } },
      ],
    },
    {
      title: 'Power',
      acts: [
        { label: 'I see power, late', draft: { kind: 'power_seen', payload: { screen: 'stall', mark: 'kW', late: true } } },
        { label: 'kWh counts up', draft: { kind: 'power_seen', payload: { screen: 'stall', mark: 'kWh' } } },
        { label: 'Amps flow', draft: { kind: 'power_seen', payload: { screen: 'stall', mark: 'A' } } },
        { label: 'Power on the car’s screen', draft: { kind: 'power_seen', payload: { screen: 'car', mark: 'kW' } } },
        { label: 'Power gone …', sheet: 'gone' },
      ],
    },
    {
      title: 'Stopping and leaving',
      acts: [
        { label: 'Stopped by button', draft: { kind: 'stop_asked', payload: { by: 'button' } } },
        { label: 'Stopped with the card', draft: { kind: 'stop_asked', payload: { by: 'card' } } },
        { label: 'Stopped in the app', draft: { kind: 'stop_asked', payload: { by: 'app' } } },
        { label: 'Stopped from the car', draft: { kind: 'stop_asked', payload: { by: 'car' } } },
        { label: 'Unlocked', draft: { kind: 'unlocked', payload: {} } },
        { label: 'Handle stuck …', sheet: 'stuck' },
        { label: 'Unplugged', draft: { kind: 'unplugged', payload: {} } },
        { label: 'Pulled out …', sheet: 'leave' },
      ],
    },
    {
      title: 'Afterwards',
      acts: [
        { label: 'Bill …', sheet: 'bill' },
        { label: 'Receipt …', sheet: 'receipt' },
        { label: 'Rating …', sheet: 'rating' },
        { label: 'Stopwatch figure …', sheet: 'stopwatch' },
      ],
    },
  ];
  return (
    <Sheet title="More" onClose={onClose} hint="The time is that of your touch here.">
      {sections.map((s) => (
        <section key={s.title} className="mb-4">
          <h3 className="mb-1.5 text-[15px]">{s.title}</h3>
          <PlateList>
            {s.acts.map((a) => (
              <Plate key={a.label} onPress={(t) => ('sheet' in a ? onSheet(a.sheet) : onAct(t, a.draft))}>
                {a.label}
              </Plate>
            ))}
          </PlateList>
        </section>
      ))}
      <section className="mt-4 grid gap-2 border-t border-rule pt-3">
        <Plate onPress={() => onSheet('join_code')}>Another phone joins …</Plate>
        <Plate onPress={() => onSheet('film')}>Clock for filming</Plate>
        <Plate onPress={() => onSheet('cautions')}>Cautions</Plate>
        <Plate onPress={onAnother}>Leave this visit open, begin another</Plate>
      </section>
    </Sheet>
  );
}
