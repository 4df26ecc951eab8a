import { fold } from '@/core/formats/match-sessions';
import { blankFields, type MileRecord } from '@/core/records/record-schema';
import type { Who } from '../accounts/who';
import { idOf } from './imported-events';

/** A record of a place as it is sent: a new one whole, one that is here with what is said of it. */
export type PlaceItem = { type: 'network' | 'site' | 'stall'; id: string; baseRev: number; archived?: boolean; fields: object };

/** Networks as files name them, for one request. One that is not here, or not in use, comes with the first place that is of it. */
export class NetworksByName {
  private readonly called: Map<string, string>;
  private readonly here: Map<string, MileRecord<'network'>>;
  private readonly used = new Set<string>();

  constructor(
    private readonly who: Pick<Who, 'householdId'>,
    networks: readonly MileRecord<'network'>[],
  ) {
    // Of several of one name, one in use.
    this.called = new Map([...networks].sort((a, b) => Number(b.archived) - Number(a.archived)).map((n) => [fold(n.fields.name), n.id]));
    this.here = new Map(networks.map((n) => [n.id, n]));
  }

  /** The network of that name, or that was made of that name and is called otherwise by now; else the one that would be made. */
  idOf(name: string): string {
    return this.called.get(fold(name)) ?? idOf(this.who.householdId, `network ${fold(name)}`);
  }

  /** The same, and what is to be written of it before something that is of it. */
  of(name: string): { id: string; items: PlaceItem[] } {
    const id = this.idOf(name);
    if (this.here.has(id)) return { id, items: this.intoUse(id) };
    return { id, items: this.once({ type: 'network', id, baseRev: 0, archived: false, fields: { ...blankFields('network'), name } }) };
  }

  /** What brings a network into use that was put away. */
  intoUse(id: string): PlaceItem[] {
    const there = this.here.get(id);
    return there?.archived ? this.once({ type: 'network', id, baseRev: there.rev, archived: false, fields: {} }) : [];
  }

  private once(item: PlaceItem): PlaceItem[] {
    if (this.used.has(item.id)) return [];
    this.used.add(item.id);
    return [item];
  }
}
