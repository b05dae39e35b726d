import { type Domain, domainUnit, type Units } from '@lithagon/core';

/** What a domain is called where one is chosen, and at the head of its figures. */
export const domainTitle = (domain: Domain): string => ({ twt: 'TWT', depth: 'Depth', age: 'Age' })[domain];

/** What values of a domain are in, beside an axis. */
export const domainAxis = (domain: Domain, units: Units): string => {
  const unit = units.of(domainUnit(domain));
  return unit ? `${domainTitle(domain)} (${unit})` : 'Relative age';
};

export const DOMAINS: Domain[] = ['twt', 'depth', 'age'];

/** Where something that has a time and a depth lies in a domain; by age it has no place. */
export const verticalOf = (domain: Domain, twt: number, depth: number): number =>
  ({ twt, depth, age: Number.NaN })[domain];
