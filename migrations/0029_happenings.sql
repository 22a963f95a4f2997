-- What happened was kept in words; from now on it is a code with its parameters. Words that no code says are kept as they are.
CREATE FUNCTION "almanac_happening"(said text, kind text) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  select case
    when kind = 'submission' then jsonb_build_object('format', 1, 'code', said)
    else (
      select jsonb_build_object('format', 1)
        || case when said ~ '; [0-9]+ dates? ended$' then jsonb_build_object('ended', substring(said from '; ([0-9]+) dates? ended$')::int) else '{}'::jsonb end
        || case
          when codes.code is not null then jsonb_build_object('code', codes.code)
          when bare.words ~ '^brought version [0-9]+ back$' then jsonb_build_object('code', 'restored', 'revision', substring(bare.words from '[0-9]+')::int)
          when bare.words like 'moved to the address %' then jsonb_build_object('code', 'moved', 'slug', substring(bare.words from 22))
          when bare.words like 'took changes of %' then jsonb_build_object('code', 'tookChanges', 'sender', substring(bare.words from 17))
          else jsonb_build_object('code', 'words', 'text', bare.words)
        end
      from (select regexp_replace(said, '; [0-9]+ dates? ended$', '') as words) bare
      left join (values
        ('made', 'made'), ('saved', 'saved'), ('published', 'published'), ('published changes', 'publishedChanges'), ('made a draft', 'draft'),
        ('sent for review', 'review'), ('withdrawn', 'withdrawn'), ('binned', 'binned'), ('taken from the bin', 'outOfBin'), ('taken out of the bin', 'outOfBin'),
        ('given its place', 'placed'), ('given its times again', 'timesAgain'), ('did not go out', 'held'), ('was to go out and was held', 'held'),
        ('took its times off', 'noTimes'), ('imported', 'imported'), ('imported and published', 'importedPublic'), ('changed', 'changed'),
        ('replaced', 'pictureReplaced'), ('put in order', 'ordered'), ('closed the account', 'accountClosed'), ('filled from an archive', 'filled')
      ) codes (words, code) on codes.words = bare.words
    )
  end
$$;--> statement-breakpoint
ALTER TABLE "version" ALTER COLUMN "what" SET DATA TYPE jsonb USING "almanac_happening"("what", 'listing');--> statement-breakpoint
ALTER TABLE "audit" ALTER COLUMN "what" SET DATA TYPE jsonb USING "almanac_happening"("what", "kind");--> statement-breakpoint
DROP FUNCTION "almanac_happening"(text, text);
