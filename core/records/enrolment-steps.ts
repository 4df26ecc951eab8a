import type { MeansKind } from './means-kind';

export type CarMeans = Extract<MeansKind, 'autocharge' | 'plug_and_charge'>;
type Step = { where: 'home' | 'stall'; act: string; shows: string };

/**
 * What is usually to be done once per network, in order. Common practice, no source; the network's own steps go before.
 * Enrolled and charging are two results: the network's word, and the first charge that started without any other means.
 */
const STEPS: Record<CarMeans, Step[]> = {
  autocharge: [
    { where: 'home', act: 'Open an account with the network and confirm the address', shows: 'The account opens in the app' },
    { where: 'home', act: 'Add a way of paying to the account', shows: 'The app lists it as usable' },
    { where: 'home', act: 'Switch on Autocharge and add the car', shows: 'The car waits for its first charge' },
    { where: 'stall', act: 'Plug in, start by the app, keep the app open', shows: 'Power flows' },
    { where: 'stall', act: 'Confirm the car when the app asks, often within a minute', shows: 'The app says the car is enrolled' },
    { where: 'stall', act: 'Next time plug in and show nothing', shows: 'Power comes by the plug alone' },
  ],
  plug_and_charge: [
    { where: 'home', act: 'Sign a contract with a provider that supports Plug & Charge', shows: 'The contract is active' },
    { where: 'home', act: 'Switch on Plug & Charge in the car’s menu or the maker’s account', shows: 'The car names the provider' },
    { where: 'home', act: 'Let the certificate come to the car, with the car awake and in coverage', shows: 'The car says the certificate is installed' },
    { where: 'stall', act: 'Plug in and show nothing', shows: 'The screen says contract or Plug & Charge, then power comes' },
  ],
};

/** A fresh step list. */
export const enrolmentSteps = (kind: CarMeans) => STEPS[kind].map((s) => ({ ...s, doneOn: null }));
/** Steps not done yet; the first is what comes next. */
export const stepsLeft = <T extends { doneOn: string | null }>(steps: readonly T[]): T[] => steps.filter((s) => s.doneOn === null);

type Enrolled = { archived: boolean; fields: { networkId: string | null; chargedOn: string | null; steps: readonly { doneOn: string | null }[] } };
/**
 * Enrolments that are not through: no charge by them was seen, and steps are left.
 * @param networkId of this network alone; `null`: of every one
 */
export const unfinished = <E extends Enrolled>(enrolments: readonly E[], networkId: string | null): E[] =>
  enrolments.filter(
    (e) => !e.archived && e.fields.chargedOn === null && stepsLeft(e.fields.steps).length > 0 && (networkId === null || e.fields.networkId === networkId),
  );
