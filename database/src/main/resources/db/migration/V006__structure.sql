-- What refers to what.

-- What the content of a version refers to: the path as written, the document that it means, and which version the author worked with.
create table if not exists version_reference (
  version bigint not null,
  seq int not null,
  role varchar(10) character set ascii collate ascii_bin not null,
  path varchar(1000) not null,
  quantity int not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  component bigint null,
  captured bigint null,
  source varchar(10) character set ascii collate ascii_bin null,
  primary key (version, seq),
  key version_reference_component (component, version),
  constraint version_reference_role check (role in ('COMPONENT','SHEET','IMAGE')),
  constraint version_reference_state check (state in ('FOUND','MISSING','AMBIGUOUS')),
  constraint version_reference_found check ((state = 'FOUND') = (component is not null and captured is not null and source is not null)),
  constraint version_reference_source check (source is null or source in ('DESK','ASSUMED','PICKED')),
  constraint version_reference_quantity check (quantity > 0),
  constraint version_reference_version foreign key (version) references version (id),
  constraint version_reference_captured foreign key (captured, component) references version (id, item)
);

-- Documents whose latest version or references changed: the graph in memory is kept up by it. Rows go after a while.
create table if not exists structure_log (
  id bigint not null auto_increment primary key,
  item bigint not null,
  at datetime(6) not null default current_timestamp(6),
  key structure_log_at (at)
);

-- One row, locked while a check-in makes a reference that was not there before, so that two of them cannot close a ring.
create table if not exists structure_gate (id smallint not null primary key check (id = 1)) select 1 as id;

-- Which version of a component was in force when a revision was released with it.
create table if not exists release_component (
  revision bigint not null,
  component bigint not null,
  version bigint not null,
  component_revision bigint not null,
  released tinyint(1) not null,
  primary key (revision, component),
  key release_component_component (component),
  constraint release_component_revision foreign key (revision) references revision (id),
  constraint release_component_version foreign key (version, component) references version (id, item),
  constraint release_component_of foreign key (component_revision, component) references revision (id, item)
);

-- A typed link beside references, with the version that it was last held against.
create table if not exists item_link (
  id bigint not null auto_increment primary key,
  item bigint not null,
  kind varchar(12) character set ascii collate ascii_bin not null,
  target bigint not null,
  captured bigint not null,
  found_by varchar(8) character set ascii collate ascii_bin not null,
  person bigint not null,
  at datetime(6) not null,
  constraint item_link_once unique (item, kind, target),
  key item_link_target (target, kind),
  constraint item_link_kind check (kind in ('SHOWS','MADE_FROM','DESCRIBES','EVIDENCE','STARTED_FROM','DERIVED_FROM')),
  constraint item_link_found_by check (found_by in ('NUMBER','HAND')),
  constraint item_link_not_itself check (item <> target),
  constraint item_link_item foreign key (item) references item (id),
  constraint item_link_captured foreign key (captured, target) references version (id, item),
  constraint item_link_person foreign key (person) references person (id)
);

-- A small picture of a model, made in the browser of somebody who looked at it.
create table if not exists model_picture (
  content bigint not null primary key,
  picture bigint not null,
  person bigint not null,
  at datetime(6) not null,
  constraint model_picture_content foreign key (content) references content (id) on delete cascade,
  constraint model_picture_picture foreign key (picture) references content (id),
  constraint model_picture_person foreign key (person) references person (id)
);

-- A line of a bill of materials that is kept: written by hand, or what is said of one that a file has, its find number before all.
create table if not exists bom_line (
  revision bigint not null,
  seq int not null,
  file_mark smallint null check (file_mark = 1),
  component bigint null,
  number varchar(60) not null default '',
  title varchar(200) not null default '',
  find varchar(10) character set ascii collate ascii_bin not null,
  quantity decimal(18,6) null,
  unit varchar(10) character set ascii collate ascii_bin null,
  comes varchar(10) character set ascii collate ascii_bin null,
  mass decimal(20,9) null,
  cost decimal(20,6) null,
  variant varchar(40) not null default '',
  from_day date null,
  to_day date null,
  from_serial varchar(24) character set ascii collate ascii_bin null,
  to_serial varchar(24) character set ascii collate ascii_bin null,
  lots varchar(120) character set ascii collate ascii_bin not null default '',
  primary key (revision, seq),
  constraint bom_line_find unique (revision, find),
  constraint bom_line_of_file unique (revision, component, file_mark),
  key bom_line_component (component),
  constraint bom_line_comes check (comes is null or comes in ('MADE','BOUGHT','LIBRARY','PHANTOM')),
  constraint bom_line_quantity check (quantity is null or quantity > 0),
  constraint bom_line_measured check ((quantity is null) = (unit is null)),
  constraint bom_line_of_file_has_it check (file_mark is null or component is not null),
  constraint bom_line_by_hand_says check (file_mark = 1 or (quantity is not null and (component is not null or title <> ''))),
  constraint bom_line_revision foreign key (revision) references revision (id),
  constraint bom_line_item foreign key (component) references item (id)
);

-- A variant that a revision of a document describes: its name there, its part number.
create table if not exists part_variant (
  revision bigint not null,
  seq int not null,
  name varchar(40) not null,
  name_key varchar(40) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  number varchar(60) not null,
  primary key (revision, seq),
  constraint part_variant_name unique (revision, name_key),
  constraint part_variant_revision foreign key (revision) references revision (id)
);

-- What of a variant is not as the document says.
create table if not exists part_variant_fact (
  revision bigint not null,
  seq int not null,
  fact varchar(40) character set ascii collate ascii_bin not null,
  value varchar(500) not null,
  primary key (revision, seq, fact),
  constraint part_variant_fact_variant foreign key (revision, seq) references part_variant (revision, seq) on delete cascade
);

-- Part numbers of variants: of one document for ever, for papers that are out say them.
create table if not exists part_number (
  number_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null primary key,
  item bigint not null,
  key part_number_item (item),
  constraint part_number_of foreign key (item) references item (id)
);

-- What somebody says of a part in the place of what its lines sum to, and why.
create table if not exists part_instead (
  revision bigint not null,
  what varchar(10) character set ascii collate ascii_bin not null,
  value decimal(20,9) not null,
  why varchar(300) not null,
  person bigint not null,
  at datetime(6) not null,
  primary key (revision, what),
  constraint part_instead_what check (what in ('MASS','COST')),
  constraint part_instead_value check (value >= 0),
  constraint part_instead_revision foreign key (revision) references revision (id),
  constraint part_instead_person foreign key (person) references person (id)
);

-- What one unit of a currency is in that of the house.
create table if not exists currency_rate (
  code char(3) character set ascii collate ascii_bin not null primary key,
  rate decimal(18,9) not null,
  person bigint not null,
  at datetime(6) not null,
  constraint currency_rate_over check (rate > 0),
  constraint currency_rate_person foreign key (person) references person (id)
);

-- A named set of documents at exact versions (ISO 10007). It never changes.
create table if not exists baseline (
  id bigint not null auto_increment primary key,
  name varchar(120) not null,
  note varchar(500) not null,
  lead bigint not null,
  of_structure varchar(20) character set ascii collate ascii_bin null,
  person bigint not null,
  at datetime(6) not null,
  key baseline_lead (lead, id),
  constraint baseline_lead_item foreign key (lead) references item (id),
  constraint baseline_person foreign key (person) references person (id)
);

-- A document of a baseline, in a version, and how much of it one of the leading document needs.
create table if not exists baseline_row (
  baseline bigint not null,
  item bigint not null,
  version bigint not null,
  needed decimal(30,10) null,
  unit varchar(10) character set ascii collate ascii_bin null,
  primary key (baseline, item),
  constraint baseline_row_needed check ((needed is null) = (unit is null)),
  constraint baseline_row_baseline foreign key (baseline) references baseline (id),
  constraint baseline_row_version foreign key (version, item) references version (id, item)
);
