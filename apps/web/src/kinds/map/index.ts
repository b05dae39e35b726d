import type { QuantityMap } from '@lithagon/core';
import { activeOf, changeSettings } from '../../state/views';
import { webKind } from '../define';

export const map = webKind<QuantityMap>({ show: ({ id }) => changeSettings('map', activeOf('map'), { shows: id }) });
