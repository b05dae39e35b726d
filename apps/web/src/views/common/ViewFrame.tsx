import { type Domain, domainName } from '@lithagon/core';
import { Camera, EyeOff, Layers, SlidersHorizontal } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type ReactNode, useRef, useState } from 'react';
import { type Extent, PictureSheet } from '../../picture/PictureSheet';
import { useHere } from '../../state/here';
import { useProject } from '../../state/project';
import { titleOf } from '../../state/views';
import { IconButton } from '../../ui/Button';
import { counted } from '../../ui/format';
import { Segmented } from '../../ui/Segmented';
import { DOMAINS, domainTitle } from './domains';
import { LinkChoice } from './LinkChoice';
import type { NotShown } from './survey';
import css from './view.module.css';

/** The thin header of a view and what is under it. One row: what finds no room stands in its menu. */
export function ViewFrame(props: {
  subtitle: ReactNode;
  /** What a picture of it says under its title, where the header shows more than text. */
  summary?: string;
  /** What a picture to scale is measured by. */
  extent?: Extent;
  tools?: ReactNode;
  /** Settings that stand in the menu alone. */
  menu?: ReactNode;
  /** The view's list of what it shows, and whether it is open. */
  list?: { open: boolean; toggle(): void; content: ReactNode };
  /** Time, depth or age, where a view may show any. */
  domain?: { value: Domain; set(value: Domain): void };
  notShown: NotShown[];
  /** Whether it looks somewhere, as others may with it. */
  links?: boolean;
  children: ReactNode;
}) {
  const here = useHere();
  const title = titleOf(here);
  const view = useRef<HTMLElement>(null);
  const [saving, setSaving] = useState(false);
  const { domain, list, notShown } = props;
  const byAge = useProject((s) => s.objects.some((o) => o.kind === 'volume' && o.domain === 'age'));
  const place = (label: string) =>
    domain && (
      <Segmented
        label={label}
        value={domain.value}
        options={DOMAINS.filter((d) => d !== 'age' || byAge || domain.value === 'age').map((value) => ({
          value,
          label: domainTitle(value),
        }))}
        onChange={domain.set}
      />
    );
  const missing = `${counted(notShown.length, 'object')} not shown${domain ? ` in ${domainName(domain.value)}` : ''}`;
  return (
    <section className={css.view} aria-label={title} ref={view}>
      <header className={css.header}>
        {props.links && <LinkChoice />}
        <span className={css.subtitle}>{props.subtitle}</span>
        <span data-controls className={css.controls}>
          {props.tools}
          {list && (
            <IconButton
              className={css.camera}
              label={`Layers of the ${title.toLowerCase()}`}
              aria-expanded={list.open}
              onClick={list.toggle}
            >
              <Layers size={14} />
            </IconButton>
          )}
          {notShown.length > 0 && (
            <Popover.Root>
              <Popover.Trigger className={css.notShown} aria-label={`${missing}: why`} title={`${missing}, and why`}>
                <EyeOff size={13} aria-hidden="true" /> {notShown.length}
              </Popover.Trigger>
              <Popover.Portal container={view.current?.ownerDocument.body}>
                <Popover.Content className={css.popover} align="end" sideOffset={4}>
                  <p className={css.popTitle}>{missing}</p>
                  <Reasons notShown={notShown} />
                </Popover.Content>
              </Popover.Portal>
            </Popover.Root>
          )}
          <span className={css.fits}>{place(`${title}: time or depth`)}</span>
          <Popover.Root>
            <Popover.Trigger
              className={`${css.menuButton} ${css.always} ${css.camera}`}
              aria-label={`Settings of the ${title.toLowerCase()}`}
              title={`Settings of the ${title.toLowerCase()}`}
            >
              <SlidersHorizontal size={14} />
            </Popover.Trigger>
            <Popover.Portal container={view.current?.ownerDocument.body}>
              <Popover.Content className={css.popover} align="end" sideOffset={4}>
                <div className={css.menu}>
                  {domain && <div className={css.menuRow}>{place('Time or depth')}</div>}
                  {props.menu}
                  {notShown.length > 0 && (
                    <details>
                      <summary>{missing}</summary>
                      <Reasons notShown={notShown} />
                    </details>
                  )}
                  <Popover.Close asChild>
                    <button type="button" className={css.menuAct} onClick={() => setSaving(true)}>
                      <Camera size={14} aria-hidden="true" /> Save a picture of the {title.toLowerCase()}
                    </button>
                  </Popover.Close>
                </div>
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        </span>
      </header>
      <div className={css.below}>
        {list?.open && list.content}
        <div className={css.body} data-view-body>
          {props.children}
        </div>
      </div>
      <PictureSheet
        open={saving}
        view={view.current}
        title={title}
        subtitle={props.summary ?? (typeof props.subtitle === 'string' ? props.subtitle : title)}
        extent={props.extent}
        onClose={() => setSaving(false)}
      />
    </section>
  );
}

function Reasons({ notShown }: { notShown: NotShown[] }) {
  return (
    <ul className={css.reasons}>
      {notShown.map((n, at) => (
        <li key={at}>
          <b>{n.name}</b> {n.why}
        </li>
      ))}
    </ul>
  );
}

/** What a view says when it has nothing to draw: what would fill it, and an offer. */
export function EmptyView(props: { title: string; children?: ReactNode }) {
  return (
    <div className={css.empty}>
      <p className={css.emptyTitle}>{props.title}</p>
      {props.children}
    </div>
  );
}
