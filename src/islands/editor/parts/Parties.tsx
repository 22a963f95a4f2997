/** Where it is, and who holds it: venues and organizers, chosen or made on the way. */
import { siteAddress } from '@/client/site-root';
import { FIELDS, optionsOf } from '@/core/listing/fields';
import { Select } from '../../fields/fields';
import { Picker } from '../Picker';
import type { Parties } from '../use-parties';
import type { PartProps } from './part';
import { PlainField } from './PlainField';
import { editorWords } from '@/words/desk';

const w = editorWords.listingEditor;

interface PartiesProps extends PartProps {
  parties: Parties;
  /** may this person make venues and organizers, and see their pages? */
  mayMake: boolean;
}

export function Where({ content, setContent, error, parties, mayMake }: PartiesProps) {
  return (
    <section className="part pt-4 scroll-mt-16" id="where">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.where()}</h2>
      <div className="grid gap-3">
        <Select
          label={FIELDS.attendance.label}
          value={content.attendance}
          options={optionsOf('attendance')}
          onChange={(attendance) => setContent({ attendance })}
        />
        {content.attendance !== 'online' && (
          <Picker
            label={w.venues()}
            choices={parties.venues}
            name="venues"
            pageOf={mayMake ? (id) => siteAddress(`/desk/venues/${id}`) : undefined}
            chosen={content.venueIds}
            onChange={(venueIds) => setContent({ venueIds })}
            onMake={mayMake ? (name) => parties.setMaking({ kind: 'venues', name }) : undefined}
            error={error('venueIds')}
          />
        )}
        {content.attendance !== 'in-person' && <PlainField field="onlineAddress" content={content} setContent={setContent} error={error} />}
      </div>
    </section>
  );
}

export function Who({ content, error, parties, mayMake }: PartiesProps) {
  return (
    <section className="part pt-4 scroll-mt-16" id="who">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.who()}</h2>
      <Picker
        label={w.organizers()}
        choices={parties.organizers}
        name="organizers"
        pageOf={mayMake ? (id) => siteAddress(`/desk/organizers/${id}`) : undefined}
        chosen={content.organizerIds}
        onChange={parties.takeOrganizers}
        onMake={mayMake ? (name) => parties.setMaking({ kind: 'organizers', name }) : undefined}
        error={error('organizerIds')}
      />
    </section>
  );
}
