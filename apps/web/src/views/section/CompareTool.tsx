import { domainName, type EarthObject, type SeismicLine, type Volume } from '@lithagon/core';
import { Columns2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect } from 'react';
import { addView } from '../../state/dock';
import { useHere } from '../../state/here';
import { useProject } from '../../state/project';
import { type Compare, changeSettings, useSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { Field, Range, Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import css from '../common/view.module.css';
import { othersOf } from './others';

const BEGIN: Omit<Compare, 'with'> = { mode: 'swipe', at: 0.5, perSecond: 1.5, clip: 98 };

/** The volume that a section is compared with, where it is there and in the same domain. */
export function otherOf(
  compare: Compare | null,
  objects: EarthObject[],
  shown: Volume | SeismicLine,
): Volume | undefined {
  return compare ? othersOf(objects, shown).find((v) => v.id === compare.with) : undefined;
}

/** Two volumes on one line: by swipe, in turns, their difference, or side by side in views that move together. */
export function CompareTool({ shown }: { shown: Volume | SeismicLine }) {
  const here = useHere();
  const objects = useProject((s) => s.objects);
  const [{ compare }, change] = useSettings('section');
  const others = othersOf(objects, shown);
  const set = (part: Partial<Compare>) => compare && change({ compare: { ...compare, ...part } });
  const other = otherOf(compare, objects, shown);
  // what is compared with may be deleted
  useEffect(() => {
    if (compare && !other) change({ compare: null });
  });
  const alike = other?.quantity === shown.quantity;
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`${css.menuButton} ${css.camera} ${css.spare}`}
        aria-label="Compare with another volume"
        aria-pressed={compare !== null}
        title="Compare with another volume"
      >
        <Columns2 size={14} />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className={css.popover} align="end" sideOffset={4}>
          <div className={css.menu}>
            {others.length === 0 ? (
              <p className={css.popTitle}>
                There is no other volume in {domainName(shown.domain)} to compare {shown.name} with.
              </p>
            ) : (
              <Field label={`${shown.name} with`}>
                {(id) => (
                  <Select
                    id={id}
                    value={compare?.with ?? ''}
                    options={[{ value: '', label: 'nothing' }, ...others.map((v) => ({ value: v.id, label: v.name }))]}
                    onChange={(to) => change({ compare: to ? { ...BEGIN, ...compare, with: to } : null })}
                  />
                )}
              </Field>
            )}
            {compare && other && (
              <>
                <Segmented
                  label="How to compare"
                  value={compare.mode}
                  options={[
                    { value: 'swipe', label: 'Swipe' },
                    { value: 'flicker', label: 'Flicker' },
                    {
                      value: 'difference',
                      label: 'Difference',
                      disabled: !alike,
                      title: alike ? undefined : `${other.quantity} cannot be taken from ${shown.quantity}`,
                    },
                  ]}
                  onChange={(mode) => set({ mode })}
                />
                {compare.mode === 'flicker' && (
                  <Field label="Changes" aside={`${compare.perSecond.toFixed(1)} a second`}>
                    {() => (
                      <Range
                        label="Changes a second"
                        value={compare.perSecond}
                        min={0.5}
                        max={6}
                        step={0.5}
                        onChange={(perSecond) => set({ perSecond })}
                      />
                    )}
                  </Field>
                )}
                {compare.mode === 'difference' && (
                  <Field label="Colours end at" aside={`${compare.clip} % of differences`}>
                    {() => (
                      <Range
                        label="Clip of the difference"
                        value={compare.clip}
                        min={80}
                        max={100}
                        step={1}
                        onChange={(clip) => set({ clip })}
                      />
                    )}
                  </Field>
                )}
                <Button
                  small
                  onClick={() => {
                    const beside = addView('section', { beside: here, direction: 'right' });
                    changeSettings('section', beside, { volume: other.id, line: null, compare: null });
                    change({ compare: null });
                  }}
                >
                  Side by side instead
                </Button>
              </>
            )}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
