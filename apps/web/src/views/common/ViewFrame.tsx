import { Camera, EyeOff } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type ReactNode, useRef, useState } from 'react';
import { type Extent, PictureSheet } from '../../picture/PictureSheet';
import { useDesk } from '../../state/desk';
import { IconButton } from '../../ui/Button';
import { Segmented } from '../../ui/Segmented';
import type { NotShown } from './survey';
import css from './view.module.css';

/** The thin header of a view and what is under it. */
export function ViewFrame(props: {
  view: string;
  title: string;
  subtitle: ReactNode;
  /** What a picture of it says under its title, where the header shows more than text. */
  summary?: string;
  /** What a picture to scale is measured by. */
  extent?: Extent;
  tools?: ReactNode;
  notShown: NotShown[];
  /** The only domain that the view has. */
  fixed?: 'twt' | 'depth';
  children: ReactNode;
}) {
  const view = useRef<HTMLElement>(null);
  const [saving, setSaving] = useState(false);
  const domain = useDesk((s) => s.domain[props.view] ?? 'twt');
  return (
    <section className={css.view} aria-label={props.title} ref={view}>
      <header className={css.header}>
        <span className={css.subtitle}>{props.subtitle}</span>
        <span data-controls className={css.controls}>
          {props.tools}
          {props.notShown.length > 0 && (
            <Popover.Root>
              <Popover.Trigger className={css.notShown} title="What this view cannot show, and why">
                <EyeOff size={13} aria-hidden="true" /> {props.notShown.length}
                <span className={css.wideOnly}> not shown</span>
              </Popover.Trigger>
              <Popover.Portal>
                <Popover.Content className={css.popover} align="end" sideOffset={4}>
                  <p className={css.popTitle}>Not shown in {domain === 'twt' ? 'TWT' : 'depth'}</p>
                  <ul className={css.reasons}>
                    {props.notShown.map((n) => (
                      <li key={n.name}>
                        <b>{n.name}</b> {n.why}
                      </li>
                    ))}
                  </ul>
                </Popover.Content>
              </Popover.Portal>
            </Popover.Root>
          )}
          <IconButton
            className={css.camera}
            label={`Save a picture of the ${props.title.toLowerCase()}`}
            onClick={() => setSaving(true)}
          >
            <Camera size={14} />
          </IconButton>
          {!props.fixed && (
            <Segmented
              label={`${props.title}: time or depth`}
              value={domain}
              options={[
                { value: 'twt', label: 'TWT' },
                { value: 'depth', label: 'Depth' },
              ]}
              onChange={(value) => useDesk.setState((s) => ({ domain: { ...s.domain, [props.view]: value } }))}
            />
          )}
        </span>
      </header>
      <div className={css.body} data-view-body>
        {props.children}
      </div>
      <PictureSheet
        open={saving}
        view={view.current}
        title={props.title}
        subtitle={props.summary ?? (typeof props.subtitle === 'string' ? props.subtitle : props.title)}
        extent={props.extent}
        onClose={() => setSaving(false)}
      />
    </section>
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
