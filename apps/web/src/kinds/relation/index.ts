import type { TimeDepthRelation } from '@lithagon/core';
import { openView } from '../../state/dock';
import { webKind } from '../define';

export const relation = webKind<TimeDepthRelation>({ show: () => openView('tie') });
