import type { ButtonHTMLAttributes } from 'react';
import css from './ui.module.css';

export function Button({
  main,
  small,
  className,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { main?: boolean; small?: boolean }) {
  return (
    <button
      type="button"
      className={[css.button, main ? css.main : '', small ? css.small : '', className ?? ''].join(' ')}
      {...rest}
    />
  );
}

/** A button that is only a picture: its label is said and shown on hover. */
export function IconButton({ label, className, ...rest }: ButtonHTMLAttributes<HTMLButtonElement> & { label: string }) {
  return (
    <button type="button" aria-label={label} title={label} className={`${css.icon} ${className ?? ''}`} {...rest} />
  );
}
