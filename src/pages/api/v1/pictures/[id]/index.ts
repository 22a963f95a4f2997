/** What is said of a picture, and what must stay in sight. Who may change which is asked in `changePicture`. */
import { jsonEndpoint } from '@/server/http/endpoint';
import { idOf } from '@/server/problem';
import { pictureChoice } from '@/server/pictures/read';
import { changePicture, pictureInput } from '@/server/pictures/write';

export const PUT = jsonEndpoint(pictureInput, async ({ tx, input, actor, context }) =>
  pictureChoice(await changePicture(tx, idOf(context.params.id, 'picture'), input, actor)),
);
