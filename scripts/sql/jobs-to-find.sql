-- So many jobs, clocks and owners; forty of the jobs open, as in a busy shop.
insert into owners select gen_random_uuid(), (array['Harbour','Kestrel','Tarn','Gull','Slip'])[1 + n % 5] || ' owner ' || n, '', ''
  from generate_series(1, :owners) n;
insert into clocks (id, owner_id, name, kind, marks, trains, pendulum)
  select gen_random_uuid(), o.id, (array['Bracket','Long','Wall','Kestrel shelf'])[1 + n % 4] || ' clock ' || n, 'wall',
    'Scratched ' || (n * 17) % 9973, '[{"train":"going","power":"spring"}]', '{"beatsPerHour":null,"windsEveryDays":null}'
  from generate_series(1, :clocks) n join (select id, row_number() over () as r from owners) o on o.r = 1 + n % :owners;
insert into jobs (id, number, clock_id, bay, complaint, runs, came_with, received_at, closed_at)
  select gen_random_uuid(), n, c.id, 'return', 'It stops.', 'runs', '[]', now() - n * interval '1 hour',
    case when n <= 40 then null else now() end
  from generate_series(1, :jobs) n join (select id, row_number() over () as r from clocks) c on c.r = 1 + n % :clocks;
