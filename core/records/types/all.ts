/** Every type of record by its name; what each is stands in its file. */
export { adapter } from './adapter';
export { car } from './car';
export { enrolment } from './enrolment';
export { means } from './means';
export { network } from './network';
export { otherprice } from './otherprice';
export { plan } from './plan';
export { provider } from './provider';
export { rate } from './rate';
export { site } from './site';
export { stall } from './stall';
export { tariff } from './tariff';
export { trial } from './trial';
