import { choice, number, optionsOf } from '../correctable-field';
import type { Payload } from '../payloads';
import type { KindFile } from './kind';

export const BAY_LABELS: Readonly<Record<Payload<'survey'>['stalls'][number]['state'], string>> = {
  free: 'Free',
  charging: 'Charging',
  idle_car: 'Idle car',
  blocked: 'Blocked',
  dark: 'Dark',
  closed: 'Closed',
  derated: 'Derated',
  not_looked: 'Not looked',
};

export const survey: KindFile<'survey'> = {
  label: 'Bays looked at',
  detail: ({ stalls }, nameOf) =>
    stalls
      .filter((s) => s.state !== 'not_looked')
      .map(
        (s) =>
          `${nameOf('stall', s.stallId) || 'a stall not known here'} ${BAY_LABELS[s.state].toLowerCase()}${s.state === 'derated' && s.kW !== undefined ? ` to ${s.kW} kW` : ''}`,
      ),
  // A field for each bay, looked at or not.
  fields: ({ stalls }) =>
    (Array.isArray(stalls) ? stalls : []).flatMap((bay, i) => [
      { ...choice(`stalls.${i}.state`, `Bay ${i + 1}`, optionsOf(BAY_LABELS)), stallId: bay.stallId },
      ...(bay.state === 'derated' ? [{ ...number(`stalls.${i}.kW`, 'derated to, kW'), stallId: bay.stallId }] : []),
    ]),
};
