import type { ShelfItemView } from '@gatepath/contract';
import { keys } from '../../api/keys';
import { call } from '../../api/client';

import type { DraftHome } from '../desk/draft-home';

/** The draft of a shelf item. */
export const SHELF_HOME: DraftHome = {
  save: (shelfId, body) => call('editShelfItem', { params: { shelfId }, body }),
  note: (client, id, saved) =>
    client.setQueryData<ShelfItemView>(keys.shelfItem(id), (was) =>
      was && was.version < saved.version
        ? { ...was, draft: saved.draft, version: saved.version, name: saved.draft.name, changed: true }
        : was,
    ),
};
