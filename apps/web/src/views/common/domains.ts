import { type Domain, domainName, domainUnit, type Units } from '@lithagon/core';

/** What a domain is called where one is chosen, and at the head of its figures. */
export const domainTitle = (domain: Domain): string => ({ twt: 'TWT', depth: 'Depth', age: 'Age' })[domain];

/** What values of a domain are in, beside an axis. */
export const domainAxis = (domain: Domain, units: Units): string => {
  const unit = units.of(domainUnit(domain));
  return unit ? `${domainTitle(domain)} (${unit})` : 'Relative age';
};

export const DOMAINS: Domain[] = ['twt', 'depth', 'age'];

/** How something comes to be shown in a domain that it is not in yet, in a sentence. */
export const waysInto = (domain: Domain): string =>
  domain === 'age'
    ? 'It can be shown by age once it is drawn against a relative age: the step Volume to age.'
    : `It can be shown in ${domainName(domain)} once a velocity model takes it there.`;

/** Where something that has a time and a depth lies in a domain; by age it has no place. */
export const verticalOf = (domain: Domain, twt: number, depth: number): number =>
  ({ twt, depth, age: Number.NaN })[domain];
