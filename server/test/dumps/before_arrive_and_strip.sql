SELECT pg_catalog.set_config('search_path', '', false);
CREATE SCHEMA drizzle;
CREATE FUNCTION public.journal_stays() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
  RAISE EXCEPTION 'the journal is append-only: write a correction that names the entry' USING ERRCODE = 'restrict_violation';
END
$$;
CREATE TABLE drizzle.__drizzle_migrations (
    id integer NOT NULL,
    hash text NOT NULL,
    created_at bigint
);
CREATE SEQUENCE drizzle.__drizzle_migrations_id_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE drizzle.__drizzle_migrations_id_seq OWNED BY drizzle.__drizzle_migrations.id;
CREATE TABLE public.clocks (
    id uuid NOT NULL,
    owner_id uuid NOT NULL,
    name text NOT NULL,
    kind text NOT NULL,
    marks text NOT NULL,
    trains jsonb NOT NULL,
    pendulum jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.file_chunks (
    file_id uuid NOT NULL,
    part integer NOT NULL,
    bytes bytea NOT NULL
);
CREATE TABLE public.files (
    id uuid NOT NULL,
    type text NOT NULL,
    size integer NOT NULL
);
CREATE TABLE public.gate_overrides (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    gate text NOT NULL,
    reason text NOT NULL,
    at timestamp with time zone NOT NULL,
    who text NOT NULL
);
CREATE TABLE public.holes (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    train text NOT NULL,
    arbor text NOT NULL,
    arbor_index integer NOT NULL,
    plate text NOT NULL,
    role text NOT NULL,
    long_axis_mm double precision,
    short_axis_mm double precision,
    wear_deg double precision,
    pivot_mm double precision,
    plate_mm double precision,
    module_mm double precision,
    depth_shift_mm double precision,
    typed jsonb NOT NULL,
    verdict_override text,
    override_reason text NOT NULL,
    bushed boolean NOT NULL,
    flagged boolean NOT NULL,
    measured_by text NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.jobs (
    id uuid NOT NULL,
    number integer NOT NULL,
    clock_id uuid NOT NULL,
    bay text NOT NULL,
    complaint text NOT NULL,
    runs text NOT NULL,
    came_with jsonb NOT NULL,
    promised_on date,
    received_at timestamp with time zone NOT NULL,
    parted_at timestamp with time zone,
    closed_at timestamp with time zone,
    version integer DEFAULT 1 NOT NULL
);
CREATE SEQUENCE public.jobs_number_seq
    AS integer
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.jobs_number_seq OWNED BY public.jobs.number;
CREATE TABLE public.journal (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    who text NOT NULL,
    kind text NOT NULL,
    text text NOT NULL,
    figures jsonb NOT NULL,
    corrects uuid
);
CREATE TABLE public.listenings (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    who text NOT NULL,
    pickup text NOT NULL,
    file_name text NOT NULL,
    purpose text NOT NULL,
    first_side text,
    beats_per_hour double precision NOT NULL,
    nominal_beats_per_hour double precision NOT NULL,
    rate_seconds_per_day double precision NOT NULL,
    rate_standard_error double precision NOT NULL,
    first_to_second_ms double precision NOT NULL,
    second_to_first_ms double precision NOT NULL,
    out_of_beat_standard_error double precision NOT NULL,
    scatter_ms double precision NOT NULL,
    beats_heard integer NOT NULL,
    beats_expected integer NOT NULL,
    rejected integer NOT NULL,
    slips integer NOT NULL,
    seconds_analysed double precision NOT NULL,
    confidence double precision NOT NULL,
    analyser_version text NOT NULL,
    beat_times_s jsonb NOT NULL,
    has_sound boolean NOT NULL,
    change_mm double precision,
    sound_id uuid
);
CREATE TABLE public.owners (
    id uuid NOT NULL,
    name text NOT NULL,
    phone text NOT NULL,
    address text NOT NULL
);
CREATE TABLE public.people (
    id uuid NOT NULL,
    name text NOT NULL,
    initials text NOT NULL,
    active boolean NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.photos (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    caption text NOT NULL,
    width integer NOT NULL,
    height integer NOT NULL,
    taken_at timestamp with time zone NOT NULL,
    original_id uuid NOT NULL,
    screen_id uuid NOT NULL
);
CREATE TABLE public.power_offs (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    train text NOT NULL,
    method text NOT NULL,
    at timestamp with time zone NOT NULL,
    who text NOT NULL
);
CREATE TABLE public.rate_events (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    kind text NOT NULL,
    turns double precision,
    note text NOT NULL,
    who text NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.readings (
    id uuid NOT NULL,
    job_id uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    error_seconds double precision NOT NULL,
    sigma_seconds double precision NOT NULL,
    way text NOT NULL,
    who text NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
CREATE TABLE public.settings (
    id integer NOT NULL,
    "values" jsonb NOT NULL,
    version integer DEFAULT 1 NOT NULL
);
ALTER TABLE ONLY drizzle.__drizzle_migrations ALTER COLUMN id SET DEFAULT nextval('drizzle.__drizzle_migrations_id_seq'::regclass);
ALTER TABLE ONLY public.jobs ALTER COLUMN number SET DEFAULT nextval('public.jobs_number_seq'::regclass);
INSERT INTO drizzle.__drizzle_migrations VALUES (1, 'dbb8a0c93f87da0423163460b58dbd453c735dd22e4af20e62e22c3a6f565524', 1795418641220);
INSERT INTO drizzle.__drizzle_migrations VALUES (2, '55137af772e220faf1e6f5dabc81659f0fed9e052083e721ac9be5839c82642d', 1795418642297);
INSERT INTO public.clocks VALUES ('01a20785-1b0b-7624-ae14-949793c6b303', '01a20785-1b0b-7624-ae14-949793c6b302', 'Kitchen clock', 'shelf', 'Scratched: 88', '[{"power": "spring", "train": "going"}, {"power": "spring", "train": "strike"}]', '{"pitchMm": 0.7, "lengthMm": 248, "releaseDeg": 2, "semiArcDeg": 5, "escapeTeeth": 30, "beatsPerHour": 7200, "caseHeightMm": null, "footSpacingMm": 300, "crutchLengthMm": 115, "windsEveryDays": 8}', 1);
INSERT INTO public.file_chunks VALUES ('01a207e4-8588-75b8-bad0-ffc777303844', 0, '\x89504e470d0a1a0a0000000d49484452000000080000000808020000004b6d29dc0000001149444154789c63687050c08a1886960400fa033801caeedbfa0000000049454e44ae426082');
INSERT INTO public.file_chunks VALUES ('01a207e4-8588-75b8-bad1-0237d6db5380', 0, '\x524946463800000057454250565038202c000000d001009d012a0800080001402225a00274ba01f80003b000fef32c3ffe156e1886babff929aff1b71d800000');
INSERT INTO public.files VALUES ('01a207e4-8588-75b8-bad0-ffc777303844', 'image/png', 74);
INSERT INTO public.files VALUES ('01a207e4-8588-75b8-bad1-0237d6db5380', 'image/webp', 64);
INSERT INTO public.gate_overrides VALUES ('01a20785-1b0b-7624-ae14-949793c6b305', '01a20785-1b0b-7624-ae14-949793c6b301', 'power', 'The strike spring is broken and out.', '2026-11-23 10:12:26.092+00', 'Ida Vos');
INSERT INTO public.holes VALUES ('01a20785-1b0b-7624-ae14-949793c6b306', '01a20785-1b0b-7624-ae14-949793c6b301', 'going', 'Third arbor', 2, 'back', 'other', 1.32, 1.1, 55, 1, 2.4, NULL, NULL, '{"wear": null, "pivot": null, "plate": null, "longAxis": null, "shortAxis": null}', NULL, '', true, false, 'Ida Vos', 1);
INSERT INTO public.jobs VALUES ('01a20785-1b0b-7624-ae14-949793c6b301', 1, '01a20785-1b0b-7624-ae14-949793c6b303', 'arrive', 'It stops.', 'not-tried', '[{"name": "key", "state": "present", "returned": false}, {"name": "bell", "state": "missing", "returned": false}]', '2026-12-24', '2026-11-23 10:12:25.979+00', '2026-11-23 10:12:26.136+00', NULL, 2);
INSERT INTO public.journal VALUES ('01a207e4-8306-76aa-8a68-2a6519e4781c', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:25.979+00', 'Ida Vos', 'job', 'Took in Kitchen clock for Gull Row as number 1. “It stops.” Came with it: key.', '{"number": 1}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-8345-716a-a71b-5a1e89c0528b', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.052+00', 'Ida Vos', 'power', 'The going train is off: let down by the click with a key. Square and great wheel tried by hand by Ida Vos.', '{"train": "going", "method": "let-down"}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-836e-71cd-9cd0-d01487c785fe', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.093+00', 'Ida Vos', 'override', 'Gate overridden: “All power was confirmed off before the plates were parted”. Reason: The strike spring is broken and out.', '{"gate": "power"}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-83a7-701a-a55b-ce925eaee249', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.136+00', 'Ida Vos', 'power', 'Parted the plates with the strike train not confirmed off; overridden.', '{}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-83cc-74ca-82b4-120b6b619590', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.187+00', 'Ida Vos', 'hole', 'Bushed: Third arbor, back plate: 1.32 by 1.10 mm, pivot 1.00.', '{"id": "01a20785-1b0b-7624-ae14-949793c6b306", "role": "other", "arbor": "Third arbor", "plate": "back", "train": "going", "typed": {"wear": null, "pivot": null, "plate": null, "longAxis": null, "shortAxis": null}, "bushed": true, "flagged": false, "pivotMm": 1, "plateMm": 2.4, "wearDeg": 55, "moduleMm": null, "arborIndex": 2, "longAxisMm": 1.32, "shortAxisMm": 1.1, "depthShiftMm": null, "overrideReason": "", "verdictOverride": null}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-83e1-7788-867c-d92eb9396cfa', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.209+00', 'Ida Vos', 'reading', 'Read: +2.0 s, by eye against a time signal (±1 s).', '{"at": "2026-11-01T09:00:00Z", "id": "01a20785-1b0b-7624-ae14-949793c6b307", "way": "eye", "errorSeconds": 2, "sigmaSeconds": 1}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-83f6-736a-b546-bb6d4921d603', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.23+00', 'Ida Vos', 'event', 'Nut raised ½ turn. raised', '{"at": "2026-11-02T09:00:00Z", "id": "01a20785-1b0b-7624-ae14-949793c6b308", "kind": "nut", "note": "raised", "turns": 0.5}', NULL);
INSERT INTO public.journal VALUES ('01a207e4-858f-748b-a234-8f4354eea815', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-23 10:12:26.639+00', 'somebody', 'photo', 'Photo: Dial.', '{"photo": "01a20785-1b0b-7624-ae14-949793c6b309"}', NULL);
INSERT INTO public.owners VALUES ('01a20785-1b0b-7624-ae14-949793c6b302', 'Gull Row', '12', 'Row 4');
INSERT INTO public.people VALUES ('01a20785-1b0b-7624-ae14-949793c6b310', 'Ida Vos', 'IV', true, 1);
INSERT INTO public.photos VALUES ('01a20785-1b0b-7624-ae14-949793c6b309', '01a20785-1b0b-7624-ae14-949793c6b301', 'Dial', 8, 8, '2026-11-23 10:12:26.638+00', '01a207e4-8588-75b8-bad0-ffc777303844', '01a207e4-8588-75b8-bad1-0237d6db5380');
INSERT INTO public.power_offs VALUES ('01a20785-1b0b-7624-ae14-949793c6b304', '01a20785-1b0b-7624-ae14-949793c6b301', 'going', 'let-down', '2026-11-23 10:12:26.051+00', 'Ida Vos');
INSERT INTO public.rate_events VALUES ('01a20785-1b0b-7624-ae14-949793c6b308', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-02 09:00:00+00', 'nut', 0.5, 'raised', 'Ida Vos', 1);
INSERT INTO public.readings VALUES ('01a20785-1b0b-7624-ae14-949793c6b307', '01a20785-1b0b-7624-ae14-949793c6b301', '2026-11-01 09:00:00+00', 2, 1, 'eye', 'Ida Vos', 1);
INSERT INTO public.settings VALUES (1, '{"beat": {"by": "split", "limitMs": 15, "finePoints": 0.5, "heardPoints": 4, "acceptablePoints": 1.5}, "place": "", "bushing": {"rule": "two-or-depth", "ovalMm": 0.05, "wallMm": 0.4, "cleanUpMm": 0.05, "pressFitMm": 0.02, "ovalPercent": 5, "playPercent": 10, "depthPercent": 10, "drillUnderMm": 0.07, "finePlayPercent": 6, "leavePlayPercent": 4, "leavePlayAtLeastMm": 0.02, "leaveFinePlayPercent": 3}, "workshop": "Old workshop", "altitudeM": 0, "cuttersMm": [1.6, 1.8, 2, 2.3, 2.7, 3, 3.5, 4, 5], "oilSchool": "default", "pickupPpm": 0, "trialDays": 7, "beatSchool": "size", "lengthUnit": "mm", "packUpToMs": 20, "pedalSound": true, "latitudeDeg": 45, "rateGoalSecondsPerDay": 1, "rateToleranceSecondsPerDay": 10}', 1);
SELECT pg_catalog.setval('drizzle.__drizzle_migrations_id_seq', 2, true);
SELECT pg_catalog.setval('public.jobs_number_seq', 1, true);
ALTER TABLE ONLY drizzle.__drizzle_migrations
    ADD CONSTRAINT __drizzle_migrations_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.clocks
    ADD CONSTRAINT clocks_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.file_chunks
    ADD CONSTRAINT file_chunks_file_id_part_pk PRIMARY KEY (file_id, part);
ALTER TABLE ONLY public.files
    ADD CONSTRAINT files_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.gate_overrides
    ADD CONSTRAINT gate_overrides_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.holes
    ADD CONSTRAINT holes_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.jobs
    ADD CONSTRAINT jobs_number_unique UNIQUE (number);
ALTER TABLE ONLY public.jobs
    ADD CONSTRAINT jobs_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.journal
    ADD CONSTRAINT journal_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.listenings
    ADD CONSTRAINT listenings_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.owners
    ADD CONSTRAINT owners_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.people
    ADD CONSTRAINT people_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.photos
    ADD CONSTRAINT photos_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.power_offs
    ADD CONSTRAINT power_offs_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.rate_events
    ADD CONSTRAINT rate_events_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.readings
    ADD CONSTRAINT readings_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.settings
    ADD CONSTRAINT settings_pkey PRIMARY KEY (id);
CREATE INDEX gate_overrides_job ON public.gate_overrides USING btree (job_id);
CREATE INDEX holes_job ON public.holes USING btree (job_id);
CREATE INDEX jobs_clock ON public.jobs USING btree (clock_id);
CREATE INDEX jobs_open ON public.jobs USING btree (closed_at);
CREATE INDEX journal_job ON public.journal USING btree (job_id, at);
CREATE INDEX listenings_job ON public.listenings USING btree (job_id);
CREATE INDEX photos_job ON public.photos USING btree (job_id);
CREATE INDEX power_offs_job ON public.power_offs USING btree (job_id);
CREATE INDEX rate_events_job ON public.rate_events USING btree (job_id);
CREATE INDEX readings_job ON public.readings USING btree (job_id);
CREATE TRIGGER journal_no_change BEFORE DELETE OR UPDATE ON public.journal FOR EACH ROW EXECUTE FUNCTION public.journal_stays();
CREATE TRIGGER journal_no_truncate BEFORE TRUNCATE ON public.journal FOR EACH STATEMENT EXECUTE FUNCTION public.journal_stays();
ALTER TABLE ONLY public.clocks
    ADD CONSTRAINT clocks_owner_id_owners_id_fk FOREIGN KEY (owner_id) REFERENCES public.owners(id);
ALTER TABLE ONLY public.file_chunks
    ADD CONSTRAINT file_chunks_file_id_files_id_fk FOREIGN KEY (file_id) REFERENCES public.files(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.gate_overrides
    ADD CONSTRAINT gate_overrides_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.holes
    ADD CONSTRAINT holes_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.jobs
    ADD CONSTRAINT jobs_clock_id_clocks_id_fk FOREIGN KEY (clock_id) REFERENCES public.clocks(id);
ALTER TABLE ONLY public.journal
    ADD CONSTRAINT journal_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.listenings
    ADD CONSTRAINT listenings_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.listenings
    ADD CONSTRAINT listenings_sound_id_files_id_fk FOREIGN KEY (sound_id) REFERENCES public.files(id);
ALTER TABLE ONLY public.photos
    ADD CONSTRAINT photos_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.photos
    ADD CONSTRAINT photos_original_id_files_id_fk FOREIGN KEY (original_id) REFERENCES public.files(id);
ALTER TABLE ONLY public.photos
    ADD CONSTRAINT photos_screen_id_files_id_fk FOREIGN KEY (screen_id) REFERENCES public.files(id);
ALTER TABLE ONLY public.power_offs
    ADD CONSTRAINT power_offs_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.rate_events
    ADD CONSTRAINT rate_events_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
ALTER TABLE ONLY public.readings
    ADD CONSTRAINT readings_job_id_jobs_id_fk FOREIGN KEY (job_id) REFERENCES public.jobs(id);
