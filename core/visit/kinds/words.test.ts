import { idOf, SITE, STALL_A, STALL_B } from '../fixtures/story';
import { type Kind, PAYLOADS, payloadProblem } from '../payloads';
import type { NameOf } from './kind';
import { correctableFields, eventDetail, eventLabel, KINDS } from './registry';

/** The words of each kind on the tape, in the table of events and in the form that corrects it: what drivers read, kept from changing unseen. */
const NAMES: Record<string, string> = {
  [STALL_A]: '4',
  [STALL_B]: '5',
  [SITE]: 'Vrba Crossing',
  [idOf(20)]: 'Short adapter',
  [idOf(21)]: 'Blue card',
  [idOf(22)]: 'Vid Kos',
};
const nameOf: NameOf = (type, id) => (NAMES[id] ? `${NAMES[id]}${type === 'stall' || type === 'site' ? '' : ` (${type})`}` : '');
const attempts = (ids: readonly string[]) => (ids.length === 0 ? null : `for ${ids.length}`);
const MEANS = { meansKind: 'contactless', meansId: idOf(21), holdAmount: '60', currency: 'EUR', fault: 'card_refused' };

/** Of each kind payloads with everything, with little, and with what makes a difference. */
const SAID: { [K in Kind]?: readonly object[] } = {
  pulled_in: [
    {
      siteId: SITE,
      carId: idOf(30),
      seen: { free: 2, total: 4, outOfOrder: 1 },
      odometerKm: 61234,
      socPct: 18,
      airC: -3,
      preconditioned: true,
      drivenBy: idOf(22),
      joins: '0A1B2C3D',
    },
    { position: { latitude: 46.0512345, longitude: 14.5 }, seen: { free: 3 }, preconditioned: false, drivenBy: idOf(99) },
    { siteId: SITE, position: { latitude: 46.05, longitude: 14.5 }, seen: { total: 4 } },
    {},
  ],
  survey: [
    {
      stalls: [
        { stallId: STALL_A, state: 'free' },
        { stallId: STALL_B, state: 'derated', kW: 62.5 },
        { stallId: idOf(40), state: 'not_looked' },
        { stallId: idOf(41), state: 'derated' },
        { stallId: idOf(42), state: 'dark', kW: 5 },
      ],
    },
    { stalls: [] },
  ],
  stall_chosen: [{ stallId: STALL_A, connectorId: 'CCS2' }, { stallId: idOf(99) }],
  stall_named: [{ text: 'SR-4' }],
  first_act: [{ what: 'handle' }, { what: 'app' }, { what: 'kiosk' }, { what: 'again' }],
  adapter_fitted: [{ adapterId: idOf(20) }, {}],
  plugged: [{ connectorId: 'CCS2' }, {}],
  means_shown: [MEANS, { meansKind: 'app' }, { meansKind: 'rfid', holdAmount: '5' }],
  means_accepted: [MEANS, { meansKind: 'app' }],
  means_refused: [MEANS, { meansKind: 'app' }],
  price_shown: [
    { where: 'Sign on the post', text: '0.59 EUR per kWh', perKWh: '0.59', currency: 'EUR', taxIn: true },
    { where: 'App', text: '0.59', taxIn: false },
    { where: 'Screen', text: '0.59' },
  ],
  claimed: [{ by: 'screen' }],
  power_seen: [
    { screen: 'stall', mark: 'kW' },
    { screen: 'car', mark: 'A', late: true },
  ],
  reading: [
    {
      screen: 'stall',
      socPct: 40,
      kW: 101,
      kWh: '12.4',
      meterStart: '1000.5',
      meterEnd: '1012.9',
      V: 380,
      A: 265,
      batteryC: 31,
      cost: '7.30',
      currency: 'EUR',
    },
    { screen: 'car' },
  ],
  change: [{ what: 'neighbour_in' }, { what: 'other', text: 'Fan howls' }],
  fault: [
    { code: 'start_error', side: 'network', text: 'E-17' },
    { code: 'start_error', side: 'car' },
  ],
  stop_asked: [{ by: 'card' }, {}],
  power_gone: [{ why: 'site_cap' }, {}],
  stuck: [{ end: 'post' }],
  help_ended: [{ result: 'reset' }, {}],
  danger_cleared: [{ stallId: STALL_A, reason: 'fuse changed' }, { reason: 'fuse changed' }],
  pulled_out: [{ reason: 'gave_up' }],
  bill: [
    { sessions: [idOf(50)], amount: '24.17', currency: 'EUR', kWh: '41.6', state: 'pending', payee: 'Saltmarsh Rapid', ref: '2025-77' },
    { sessions: [], amount: '24.17', currency: 'EUR', state: 'charged' },
    { sessions: [], amount: '2.50', currency: 'EUR', state: 'charged', what: 'parking' },
  ],
  receipt: [{ sha256: 'f'.repeat(64) }],
  hold_released: [{ hold: idOf(102), on: '2025-10-17' }],
  rating: [{ stars: 4 }, {}],
  note: [{ text: 'Dark behind the shed' }],
  mark: [{ as: 'business' }, { as: 'left_out', reason: 'a trial' }],
  trial_round: [
    { trialId: idOf(60), round: 3, side: 'Stall 4' },
    { trialId: idOf(60), round: 3 },
  ],
  trial_voided: [{ trialId: idOf(60), reason: 'rain' }],
  figure_given: [
    { figure: 'handshake', seconds: 75.4, plusMinus_s: 0.5, startMark: 'plugged', endMark: 'kW' },
    { figure: 'handshake', seconds: 75.4, startMark: 'plugged', endMark: 'kW' },
  ],
  correction: [{ target: idOf(100) }],
  withdrawal: [{ target: idOf(100) }],
};

it('each example is allowed', () => {
  for (const kind of KINDS) for (const payload of SAID[kind] ?? [{}]) expect([kind, payloadProblem(kind, payload)]).toEqual([kind, null]);
});

it('what each kind says of itself', () => {
  const said = KINDS.map((kind) => {
    const lines = (SAID[kind] ?? [{}]).map((payload) => {
      const e = { kind, payload } as Parameters<typeof eventLabel>[0];
      return `  ${eventLabel(e, nameOf)} | ${eventDetail(e, nameOf, attempts)}`;
    });
    const bare = eventLabel({ kind, payload: SAID[kind]?.[0] ?? {} } as Parameters<typeof eventLabel>[0]);
    return [`${kind}: ${bare}`, ...lines].join('\n');
  });
  expect(`\n${said.join('\n')}\n`).toMatchInlineSnapshot(`
"
pulled_in: Pulled in
  Pulled in | 2 of 4 free, 1 out of order, 18 %, 61234 km, -3 °C, battery preconditioned, driven by Vid Kos (person), also recorded as 0A1B-2C3D
  Pulled in | 46.05123, 14.50000, 3 free, driven by somebody else
  Pulled in | 
  Pulled in | 
survey: Bays looked at
  Bays looked at | 4 free, 5 derated to 62.5 kW, a stall not known here derated, a stall not known here dark
  Bays looked at | 
queue_joined: Queue joined
  Queue joined | 
stall_free: Stall free
  Stall free | 
stall_chosen: Stall chosen
  Stall 4 chosen | CCS2
  Stall chosen | 
stall_named: Named SR-4
  Named SR-4 | 
first_act: Handle taken
  Handle taken | 
  App opened | 
  Kiosk touched | 
  Same stall again | 
adapter_fitted: Adapter fitted
  Adapter fitted | Short adapter (adapter)
  Adapter fitted | 
plugged: Plugged in
  Plugged in | CCS2
  Plugged in | 
means_shown: Card shown
  Card shown | Blue card (means), 60 EUR held
  Started in app | 
  RFID card shown | 5 held
means_accepted: Accepted
  Accepted | Blue card (means), 60 EUR held
  Accepted | 
means_refused: Card refused
  Card refused | Blue card (means), 60 EUR held
  Refused | 
price_shown: Price shown
  Price shown | 0.59 EUR per kWh, sign on the post, tax in
  Price shown | 0.59, app, tax on top
  Price shown | 0.59, screen
claimed: Says charging
  Says charging | by screen
power_seen: Power seen
  Power seen | kW on the stall’s screen
  Power seen, late | A on the car’s screen
reading: Reading
  Reading | 40 %, 101 kW, 12.4 kWh, 1000.5 kWh on the meter at the start, 1012.9 kWh on the meter at the end, 380 V, 265 A, 31 °C battery, stall’s screen
  Reading | car’s screen
change: Neighbour plugs in
  Neighbour plugs in | 
  Fan howls | 
fault: Start error
  Start error | network’s side, E-17
  Start error | car’s side
stop_asked: Pressed stop
  Pressed stop | by card
  Pressed stop | 
power_gone: Power gone
  Power gone | A limit of the site
  Power gone | 
unlocked: Unlocked
  Unlocked | 
stuck: Handle stuck
  Handle stuck | at the post
unplugged: Unplugged
  Unplugged | 
help_called: Helpline called
  Helpline called | 
help_answered: Helpline answered
  Helpline answered | 
help_ended: Helpline ended
  Helpline ended | they reset the stall
  Helpline ended | 
danger_cleared: Danger cleared
  Danger cleared | stall 4, fuse changed
  Danger cleared | fuse changed
reserved: Reserved
  Reserved | 
released: Released
  Released | 
pulled_out: Pulled out
  Pulled out | gave up
bill: Bill
  Bill | 24.17 EUR, 41.6 kWh, for 1, pending, Saltmarsh Rapid, 2025-77
  Bill | 24.17 EUR
  Bill | 2.50 EUR, for parking
receipt: Receipt
  Receipt | 
hold_released: Hold released
  Hold released | on 17 Oct 2025
rating: Rating
  Rating | 4 of 5
  Rating | 
note: Note
  Note | Dark behind the shed
mark: Business
  Business | 
  Left out of comparisons | a trial
trial_round: Round 3 of a trial
  Round 3 of a trial | Stall 4
  Round 3 of a trial | 
trial_voided: Round voided
  Round voided | rain
figure_given: Stopwatch figure
  Stopwatch figure | handshake, 1:15 ± 0.5 s
  Stopwatch figure | handshake, 1:15 ± 2 s
correction: Correction
  Correction | 
withdrawal: Taken back
  Taken back | 
"
`);
});

it('what of each kind can be corrected', () => {
  const said = KINDS.map((kind) => {
    const fields = correctableFields(kind, (SAID[kind]?.[0] ?? {}) as never).map((f) => {
      const more = f.is === 'choice' ? ` ${f.options.map(([value, label]) => `${value}=${label}`).join(', ')}` : f.is === 'ref' ? ` ${f.type}` : '';
      return `  ${f.field} “${f.label}” ${f.is}${more}${f.stallId ? ` of ${f.stallId.slice(-2)}` : ''}`;
    });
    return [kind, ...fields].join('\n');
  });
  expect(`\n${said.join('\n')}\n`).toMatchInlineSnapshot(`
"
pulled_in
  siteId “Site” ref site
  carId “Car” ref car
  drivenBy “Who drove” ref person
  socPct “Battery on arrival, %” number
  seen.free “Free stalls seen” number
  seen.total “Stalls in all” number
  seen.outOfOrder “Out of order” number
  odometerKm “Odometer” distance
  airC “Air, °C” number
  preconditioned “Battery preconditioned” yes_no
survey
  stalls.0.state “Bay 1” choice free=Free, charging=Charging, idle_car=Idle car, blocked=Blocked, dark=Dark, closed=Closed, derated=Derated, not_looked=Not looked of 08
  stalls.1.state “Bay 2” choice free=Free, charging=Charging, idle_car=Idle car, blocked=Blocked, dark=Dark, closed=Closed, derated=Derated, not_looked=Not looked of 09
  stalls.1.kW “derated to, kW” number of 09
  stalls.2.state “Bay 3” choice free=Free, charging=Charging, idle_car=Idle car, blocked=Blocked, dark=Dark, closed=Closed, derated=Derated, not_looked=Not looked of 28
  stalls.3.state “Bay 4” choice free=Free, charging=Charging, idle_car=Idle car, blocked=Blocked, dark=Dark, closed=Closed, derated=Derated, not_looked=Not looked of 29
  stalls.3.kW “derated to, kW” number of 29
  stalls.4.state “Bay 5” choice free=Free, charging=Charging, idle_car=Idle car, blocked=Blocked, dark=Dark, closed=Closed, derated=Derated, not_looked=Not looked of 2a
queue_joined
stall_free
stall_chosen
  stallId “Stall” ref stall
  connectorId “Connector” text
stall_named
  text “Named in the app or kiosk” text
first_act
  what “First act” choice handle=Handle taken, app=App opened, kiosk=Kiosk touched, again=Same stall again
adapter_fitted
  adapterId “Adapter” ref adapter
plugged
  connectorId “Connector” text
means_shown
  meansKind “Kind of means” choice contactless=Contactless card, card_insert=Card inserted, phone_wallet=Phone wallet, app=Network app, web=Web page or QR, rfid=RFID card, autocharge=Autocharge, plug_and_charge=Plug & Charge, remote=Phone call, remote start, free_vend=Free, no proof asked, in_app_account=In-app account
  meansId “Means held” ref means
  holdAmount “Amount held back” decimal
  currency “Currency” text
means_accepted
  meansKind “Kind of means” choice contactless=Contactless card, card_insert=Card inserted, phone_wallet=Phone wallet, app=Network app, web=Web page or QR, rfid=RFID card, autocharge=Autocharge, plug_and_charge=Plug & Charge, remote=Phone call, remote start, free_vend=Free, no proof asked, in_app_account=In-app account
  meansId “Means held” ref means
  holdAmount “Amount held back” decimal
  currency “Currency” text
means_refused
  meansKind “Kind of means” choice contactless=Contactless card, card_insert=Card inserted, phone_wallet=Phone wallet, app=Network app, web=Web page or QR, rfid=RFID card, autocharge=Autocharge, plug_and_charge=Plug & Charge, remote=Phone call, remote start, free_vend=Free, no proof asked, in_app_account=In-app account
  meansId “Means held” ref means
  holdAmount “Amount held back” decimal
  currency “Currency” text
  fault “What it said” choice card_refused=Card refused, app_unreachable=App cannot reach the stall, rfid_refused=RFID card refused, car_not_recognised=Autocharge or Plug & Charge not recognised, stored_card_expired=Stored card expired
price_shown
  where “Where” text
  text “What it said” text
  perKWh “Per kWh” decimal
  currency “Currency” text
claimed
  by “Claimed by” choice screen=Screen, light=Light, beep=Beep, app=App
power_seen
  screen “Whose screen” choice stall=Stall’s screen, car=Car’s screen
  mark “What was seen” choice kW=kW, kWh=kWh counting up, A=Amps
  late “Seen late” yes_no
reading
  screen “Whose screen” choice stall=Stall’s screen, car=Car’s screen
  socPct “Battery, %” number
  kW “Power, kW” number
  kWh “Delivered, kWh” decimal
  cost “Cost” decimal
  currency “Currency” text
  V “Volts” number
  A “Amps” number
  meterStart “Meter at the start, kWh” decimal
  meterEnd “Meter at the end, kWh” decimal
  batteryC “Battery, °C” number
change
  what “What changed” choice neighbour_in=Neighbour plugs in, neighbour_out=Neighbour leaves, climate_on=Climate on, climate_off=Climate off, fans=Fans, derate=Power drops, paused=Paused, resumed=Resumed, cold=Cold, rain=Rain, other=Something changed
  text “In words” text
fault
  code “Fault” choice stall_dark=Stall dark or out of order, reader_dead=Screen or reader dead, card_refused=Card refused, app_unreachable=App cannot reach the stall, rfid_refused=RFID card refused, car_not_recognised=Autocharge or Plug & Charge not recognised, stored_card_expired=Stored card expired, connector_damaged=Connector or cable damaged, bay_blocked=Cable does not reach or bay blocked, adapter_not_recognised=Adapter not recognised, timed_out=Waits for the car, times out, cable_check=Cable check or isolation fault, start_error=Start error, claims_no_power=Says charging, no power, wrong_stall_started=Wrong stall started, stopped_by_itself=Stopped by itself, hot_connector=Hot cable or connector, derated=Steady below the plate, slow_ramp=Slow to ramp up, shared_drop=Dropped when shared, fewer_phases=Fewer AC phases than the plate, site_limit=Stopped by a site limit, emergency_stop=Emergency stop, does_not_stop=Does not stop, handle_stuck=Handle stuck, cable_locked=Cable locked in the post, price_not_shown=Price not shown, wrong_price=Wrong price shown, sticker_over_code=Sticker over a payment code, billed_wrong=Billed wrong, billed_twice=Billed twice, hold_wrong=Hold not released or too large, receipt_refused=Receipt refused, idle_fee_disputed=Idle or overstay fee disputed, danger=Shock, smell, arcing, tripped breaker, bare or wet inside
  side “Whose side it seems” choice site=site, network=network, payment=payment, car=car, adapter=adapter, driver=driver
  text “What it said” text
stop_asked
  by “Stopped by” choice button=Button, card=Card, app=App, car=Car
power_gone
  why “Why” choice asked=I asked it to, car_target=The car’s target, site_cap=A limit of the site, time_limit=A time limit, hold_used_up=The hold was used up, load_management=Load management, fault=A fault, power_cut=A power cut, emergency=Emergency stop, unplugged_by_other=Unplugged by somebody, unknown=Not known
unlocked
stuck
  end “Stuck at” choice car=The car, post=The post
unplugged
help_called
help_answered
help_ended
  result “Result” choice reset=They reset the stall, remote_start=They started it, refund_promised=Refund promised, none=Nothing came of it
danger_cleared
  stallId “Stall” ref stall
  reason “Why it can be used again” text
reserved
released
pulled_out
  reason “Why you left” choice enough=Enough charged, gave_up=Gave up, queue=The queue, price=The price, unsafe=Felt unsafe, closed=Closed, called_away=Called away
bill
  sessions “For which attempts” attempts
  amount “Amount paid” decimal
  currency “Currency” text
  fx “Came to, in your own currency” decimal
  kWh “kWh on the bill” decimal
  minutes “Minutes on the bill” number
  tax “Of that tax” decimal
  what “For” choice charging=Charging, parking=Parking
  payee “Paid to” text
  ref “Number of the bill” text
  counts “Beside another bill for the same” choice as_well=a bill of its own, paid as well
  state “State” choice charged=Charged, pending=Pending, checked=Checked, queried=Queried, settled=Settled, refunded=Refunded
receipt
hold_released
  on “On, such as 2025-10-17” text
rating
  stars “Stars, 1 to 5” number
note
  text “Note” text
mark
  as “Counts as” choice business=Business, private=Private, left_out=Left out of comparisons
  reason “Why” text
trial_round
  round “Round” number
trial_voided
  reason “Why it does not count” text
figure_given
  seconds “Seconds” number
  plusMinus_s “± seconds” number
  used “Use it in place of the derived figure” yes_no
correction
withdrawal
"
`);
});

it('every field that can be corrected is one of its kind', () => {
  for (const kind of KINDS) {
    if (kind === 'survey') continue;
    const shape = Object.keys((PAYLOADS[kind] as unknown as { shape?: object }).shape ?? {});
    for (const f of correctableFields(kind, (SAID[kind]?.[0] ?? {}) as never)) expect(shape).toContain(f.field.split('.')[0]);
  }
});
