'use client';
import { useState } from 'react';
import { DISTANCES, type Wishes } from '@/core/records/wishes';
import { wishesForm } from '@/core/records/wishes-form';
import { CONSUMPTIONS } from '@/core/units/consumption';
import { FormAlert } from '@/ui/forms/form-alert';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { OneOf } from '@/ui/forms/one-of';
import { useSetting } from './use-setting';

const distances = Object.entries(DISTANCES) as [Wishes['distance'], string][];
const consumptions = CONSUMPTIONS.map((c) => [c, c] as const);

/** What a person wishes for on every device: each is kept as it is chosen. */
export function OwnWishes({ wishes }: { wishes: Wishes }) {
  const [shown, setShown] = useState(wishes);
  const [number, setNumber] = useState(wishes.emergencyNumber ?? '');
  const [odd, setOdd] = useState<string | undefined>();
  const { send, busy, problem } = useSetting();
  const keep = async (some: Partial<Wishes>) => {
    const before = shown;
    setShown({ ...shown, ...some });
    if (!(await send('/api/v1/wishes', some, 'PUT'))) setShown(before);
  };
  const keepNumber = () => {
    const typed = number.trim() === '' ? null : number.trim();
    const checked = wishesForm.shape.emergencyNumber.safeParse(typed);
    setOdd(checked.success ? undefined : 'A telephone number, such as 112');
    if (checked.success) void keep({ emergencyNumber: checked.data });
  };
  return (
    <>
      <OneOf label="Distances" value={shown.distance} choices={distances} onChoose={(distance) => void keep({ distance })} />
      <OneOf label="Consumption" value={shown.consumption} choices={consumptions} onChoose={(consumption) => void keep({ consumption })} />
      <OneOf
        label="Where a photo was taken"
        value={shown.photoPosition ? 'yes' : 'no'}
        choices={[
          ['no', 'Only when I ask for it'],
          ['yes', 'Written beside it'],
        ]}
        onChoose={(v) => void keep({ photoPosition: v === 'yes' })}
      />
      <form
        className="mt-4"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          keepNumber();
        }}
      >
        <FormField
          id="emergency"
          label="Emergency number"
          error={odd}
          hint="Called where a site has none of its own. Left empty: the one of the country the site is in, 112 where that is not known."
        >
          <input type="tel" value={number} onChange={(e) => setNumber(e.target.value)} {...fieldState('emergency', odd)} />
        </FormField>
        <button type="submit" className="plate" disabled={busy}>
          Keep the number
        </button>
      </form>
      <div className="mt-3">
        <FormAlert message={problem} />
      </div>
    </>
  );
}
