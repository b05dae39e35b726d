import type { InversionOperator } from '@lithagon/core';
import { webKind } from '../define';
import { OperatorSheet } from './OperatorSheet';

export const operator = webKind<InversionOperator>({ sheet: [OperatorSheet] });
