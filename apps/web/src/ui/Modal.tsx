import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { IconButton } from './Button';
import css from './ui.module.css';

/** Where typing goes when a sheet opens: into its first field, and never to the cross, which a space would press. */
function focusFirst(event: Event): void {
  event.preventDefault();
  const sheet = event.target as HTMLElement;
  const field = sheet.querySelector<HTMLElement>('input:not([type=checkbox], [type=radio]), textarea');
  (field ?? sheet).focus();
}

/** A sheet over the workbench; Escape and the cross close it. */
export function Modal(props: {
  open: boolean;
  title: string;
  summary?: string;
  wide?: boolean;
  onClose(): void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={props.open} onOpenChange={(open) => !open && props.onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={css.overlay} />
        <Dialog.Content
          className={`${css.modal} ${props.wide ? css.wide : ''}`}
          aria-describedby={undefined}
          onOpenAutoFocus={focusFirst}
        >
          <header className={css.modalTop}>
            <div>
              <Dialog.Title className={css.modalTitle}>{props.title}</Dialog.Title>
              {props.summary && <p className={css.help}>{props.summary}</p>}
            </div>
            <Dialog.Close asChild>
              <IconButton label="Close">
                <X size={17} />
              </IconButton>
            </Dialog.Close>
          </header>
          {props.children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
