import { DropdownMenu } from 'radix-ui';
import { useDesk } from '../../state/desk';
import { useHere } from '../../state/here';
import { LINKS, linkTo, titleOf } from '../../state/views';
import { viewIn } from '../../state/views/index';
import css from './view.module.css';

/** Which group of views this one looks with: a letter in the group's colour. */
export function LinkChoice() {
  const here = useHere();
  const link = useDesk((s) => viewIn(s, here).link);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className={css.link}
        data-link={link ?? 'none'}
        aria-label={
          link ? `${titleOf(here)} is linked to group ${link}` : `${titleOf(here)} is linked to no other view`
        }
        title="Views of one group share cursor, line and zoom"
      >
        {link ?? '–'}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={css.popover} align="start" sideOffset={4} style={{ width: 200 }}>
          <DropdownMenu.RadioGroup
            value={link ?? ''}
            onValueChange={(to) => linkTo(here, LINKS.find((l) => l === to) ?? null)}
          >
            {LINKS.map((each) => (
              <DropdownMenu.RadioItem key={each} value={each} className={css.menuAct}>
                <span className={css.link} data-link={each}>
                  {each}
                </span>
                Look with group {each}
              </DropdownMenu.RadioItem>
            ))}
            <DropdownMenu.RadioItem value="" className={css.menuAct}>
              <span className={css.link} data-link="none">
                –
              </span>
              By itself
            </DropdownMenu.RadioItem>
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
