import { type Domain, domainName, stepOf } from '@lithagon/core';
import { prepare } from '../../actions/steps';
import { convertersOf, useConversion } from '../../state/conversion';
import { useProject } from '../../state/project';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import css from './view.module.css';

/** What a view is turned into its domain by, where it is turned on the fly; another may be chosen. */
export function ConvertedBy() {
  const objects = useProject((s) => s.objects);
  const chosen = useConversion((s) => s.chosen);
  const { models, volumes } = convertersOf(objects);
  const all = [...models, ...volumes];
  const now = all.find((o) => o.id === chosen) ?? all[0];
  if (!now) return null;
  return (
    <span className={css.convertedBy} title="What turns time into depth and back in views; nothing is stored">
      <span>by</span>
      <Select
        label="Converted by"
        value={now.id}
        options={all.map((o) => ({ value: o.id, label: o.name }))}
        onChange={(id) => useConversion.setState({ chosen: id })}
      />
    </span>
  );
}

/** How a volume comes into a domain that is by age, or that it leaves from there. */
const BY_AGE = (domain: Domain) =>
  domain === 'age'
    ? 'It can be shown by age once it is drawn against a relative age: the step Volume to age.'
    : 'What is by age goes to no other domain.';

/** What a view in a domain says where nothing turns into it what it shows: what would show there, and how. */
export function WaysInto({ domain, from, back }: { domain: Domain; from: Domain; back(): void }) {
  const objects = useProject((s) => s.objects);
  const reading = useConversion((s) => s.model === null);
  const { models, volumes } = convertersOf(objects);
  const model = stepOf('depth.layers');
  const show = <Button onClick={back}>Show it in {domainName(from)}</Button>;
  if (domain === 'age' || from === 'age')
    return (
      <>
        <span>{BY_AGE(domain)}</span>
        {show}
      </>
    );
  if (models.length > 0 && reading)
    return (
      <span>
        It is shown in {domainName(domain)} as soon as {models[0].name} is read.
      </span>
    );
  return (
    <>
      <span>
        It shows in {domainName(domain)} as soon as there are velocities: a model of layers or wells
        {volumes.length > 0 ? ', or a velocity volume.' : '.'}
      </span>
      {volumes.slice(0, 3).map((volume) => (
        <Button key={volume.id} onClick={() => useConversion.setState({ chosen: volume.id })}>
          Show it by {volume.name}
        </Button>
      ))}
      <Button onClick={() => model && prepare(model)}>Model velocities…</Button>
      {show}
    </>
  );
}
