-- Makes the demo's open jobs, each with all its rows, as many as :wanted: clocks, holes, readings, steps and all.
do $$
declare
  of_job text;
begin
  create temporary table clones as
    select j.id as old_job, gen_random_uuid() as new_job, j.clock_id as old_clock, gen_random_uuid() as new_clock
    from jobs j, generate_series(1, :wanted) n where j.closed_at is null
    order by n limit :wanted - (select count(*) from jobs where closed_at is null);
  insert into clocks select (jsonb_populate_record(c, jsonb_build_object('id', m.new_clock))).*
    from clones m join clocks c on c.id = m.old_clock;
  insert into jobs select (jsonb_populate_record(j, jsonb_build_object('id', m.new_job, 'clock_id', m.new_clock,
      'number', (select max(number) from jobs) + row_number() over ()))).*
    from clones m join jobs j on j.id = m.old_job;
  insert into train_sheets select (jsonb_populate_record(t, jsonb_build_object('id', gen_random_uuid(), 'clock_id', m.new_clock))).*
    from clones m join train_sheets t on t.clock_id = m.old_clock;
  insert into plate_maps select (jsonb_populate_record(t, jsonb_build_object('id', gen_random_uuid(), 'clock_id', m.new_clock))).*
    from clones m join plate_maps t on t.clock_id = m.old_clock;
  foreach of_job in array '{power_offs,gate_overrides,holes,readings,rate_events,listenings,observations,conditions,estimates,strip_marks,strip_steps,clean_parts,timers,arbor_tests,pivots}'::text[]
  loop
    execute format('insert into %1$I select (jsonb_populate_record(r, jsonb_build_object(''id'', gen_random_uuid(), ''job_id'', m.new_job))).*
      from clones m join %1$I r on r.job_id = m.old_job', of_job);
  end loop;
end $$;
analyze
