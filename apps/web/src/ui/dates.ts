import { format } from 'date-fns/format';
import { formatDistanceToNowStrict } from 'date-fns/formatDistanceToNowStrict';
import { isValid } from 'date-fns/isValid';
import { parseISO } from 'date-fns/parseISO';

/** A moment as lists show it, in the time of the place where one sits: “2026-03-01 14:05”. */
export function listed(iso: string): string {
  const at = parseISO(iso);
  return isValid(at) ? format(at, 'yyyy-MM-dd HH:mm') : '';
}

/** A moment as a sentence names it: “1 Mar 2026, 14:05”. */
export function spoken(iso: string): string {
  const at = parseISO(iso);
  return isValid(at) ? format(at, 'd MMM yyyy, HH:mm') : 'at an unknown time';
}

/** How long ago: “3 hours ago”. */
export function ago(iso: string): string {
  const at = parseISO(iso);
  return isValid(at) ? formatDistanceToNowStrict(at, { addSuffix: true }) : '';
}
