-- A ledger of :donors parts.
insert into donors (id, kind, count, module_mm, bore_mm, outside_mm, arbor_mm, side, there, "from", drawer, note)
select gen_random_uuid(), (array['wheel', 'wheel', 'pinion', 'escape wheel'])[1 + n % 4],
  case when n % 17 = 0 then null else 6 + n % 90 end, 0.4 + (n % 50) / 100.0, 2 + (n % 40) / 10.0,
  20 + n % 60, null, '', n % 3, 'movement ' || n, '', ''
from generate_series(1, :donors) n
