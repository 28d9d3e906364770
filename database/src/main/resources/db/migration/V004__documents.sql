-- Documents, their lines, revisions and versions.

-- A document (or a part): one controlled thing with a number.
create table if not exists item (
  id bigint not null auto_increment primary key,
  aspect varchar(10) character set ascii collate ascii_bin not null,
  kind bigint not null,
  shelf bigint not null,
  folder bigint not null,
  number varchar(60) not null,
  number_sort varchar(250) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  title varchar(200) not null,
  file_name varchar(200) not null,
  file_name_key varchar(200) character set utf8mb4 collate utf8mb4_nopad_bin null,
  author bigint not null,
  created_at datetime(6) not null,
  changed_at datetime(6) not null,
  dropped_at datetime(6) null,
  dropped_by bigint null,
  dropped_why varchar(500) null,
  freed_at datetime(6) null,
  out_title varchar(200) null,
  out_at datetime(6) null,
  constraint item_file_name unique (folder, file_name_key),
  key item_number (folder, number_sort, id),
  key item_changed (shelf, changed_at, id),
  key item_title (shelf, title, id),
  key item_counted (shelf, folder, dropped_at),
  key item_by_file_name (file_name_key),
  key item_out_at (shelf, out_at, id),
  key item_out_title (shelf, out_title, id),
  constraint item_aspect check (aspect in ('DRAWING','MODEL','PAPER','PART')),
  constraint item_kind foreign key (kind) references kind (id),
  constraint item_place foreign key (folder, shelf) references folder (id, shelf),
  constraint item_author foreign key (author) references person (id),
  constraint item_dropped_by foreign key (dropped_by) references person (id)
);

-- Every number that is or was in use, by aspect: current, former, dropped or reserved.
create table if not exists number_claim (
  id bigint not null auto_increment primary key,
  aspect varchar(10) character set ascii collate ascii_bin not null,
  number_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  number varchar(60) not null,
  item bigint null,
  state varchar(10) character set ascii collate ascii_bin not null,
  current_mark smallint null check (current_mark = 1),
  at datetime(6) not null,
  constraint number_claim_number unique (aspect, number_key),
  constraint number_claim_current unique (item, current_mark),
  constraint number_claim_state check (state in ('CURRENT','FORMER','DROPPED','RESERVED')),
  key number_claim_key (number_key),
  constraint number_claim_item foreign key (item) references item (id)
);

-- What a document's sheet said of its revisions when it was taken in, the oldest first; own where the revision itself was taken in with its file.
create table if not exists earlier_revision (
  item bigint not null,
  position int not null,
  label varchar(40) not null,
  said json not null,
  own tinyint(1) not null,
  primary key (item, position),
  constraint earlier_revision_item foreign key (item) references item (id)
);

-- A file name that a document had: files that say it mean the document still.
create table if not exists former_file_name (
  item bigint not null,
  file_name varchar(200) not null,
  file_name_key varchar(200) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  at datetime(6) not null,
  primary key (item, file_name_key),
  key former_file_name_key (file_name_key),
  constraint former_file_name_item foreign key (item) references item (id)
);

-- A trial: an idea tried on one or several documents together, each on a line of its own beside its main one.
create table if not exists trial (
  id bigint not null auto_increment primary key,
  number int not null,
  title varchar(200) not null,
  started_by bigint not null,
  started_at datetime(6) not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  ended_at datetime(6) null,
  ended_by bigint null,
  ended_why varchar(500) null,
  key trial_state (state, id),
  constraint trial_number check (number > 0),
  constraint trial_states check (state in ('OPEN','ADOPTED','DROPPED')),
  constraint trial_open_or_ended check ((state = 'OPEN') = (ended_at is null)),
  constraint trial_started_by foreign key (started_by) references person (id),
  constraint trial_ended_by foreign key (ended_by) references person (id)
);

-- A line of versions: the main one, or that of a trial, which begins at a version of the main one.
create table if not exists line (
  id bigint not null auto_increment primary key,
  item bigint not null,
  main_mark smallint null check (main_mark = 1),
  trial bigint null,
  trial_number int null,
  from_version bigint null,
  head_version bigint null,
  adopted_as bigint null,
  constraint line_main unique (item, main_mark),
  constraint line_trial unique (trial, item),
  constraint line_trial_number unique (item, trial_number),
  constraint line_item_id unique (id, item),
  constraint line_main_or_trial check ((main_mark is null) = (trial is not null)),
  constraint line_trial_whole check ((trial is null) = (trial_number is null) and (trial is null) = (from_version is null)),
  constraint line_item foreign key (item) references item (id),
  constraint line_of_trial foreign key (trial) references trial (id)
);

-- A labelled, controlled step of a document. A stage belongs to a revision.
create table if not exists revision (
  id bigint not null auto_increment primary key,
  item bigint not null,
  ordinal int not null,
  label varchar(20) null,
  label_key varchar(20) character set utf8mb4 collate utf8mb4_nopad_bin null,
  title varchar(200) not null default '',
  edition bigint not null,
  stage varchar(40) character set ascii collate ascii_bin not null,
  pending_mark smallint null check (pending_mark = 1),
  released_mark smallint null check (released_mark = 1),
  started_by bigint not null,
  started_at datetime(6) not null,
  reason varchar(200) not null default '',
  details text null,
  stage_since datetime(6) not null,
  released_at datetime(6) null,
  released_version bigint null,
  dropped_at datetime(6) null,
  constraint revision_label unique (item, label_key),
  constraint revision_ordinal unique (item, ordinal),
  constraint revision_pending unique (item, pending_mark),
  constraint revision_released unique (item, released_mark),
  constraint revision_item_id unique (id, item),
  constraint revision_one_state check (pending_mark is null or released_mark is null),
  constraint revision_item foreign key (item) references item (id),
  constraint revision_stage foreign key (edition, stage) references stage (edition, code),
  constraint revision_started_by foreign key (started_by) references person (id)
);

-- One immutable check-in.
create table if not exists version (
  id bigint not null auto_increment primary key,
  item bigint not null,
  line bigint not null,
  revision bigint not null,
  number int not null,
  digest binary(32) not null,
  comment text not null,
  author bigint not null,
  made_by varchar(12) character set ascii collate ascii_bin not null,
  at datetime(6) not null,
  base bigint null,
  substance bigint null,
  copy_of bigint null,
  facts json not null,
  constraint version_number unique (line, number),
  constraint version_line_id unique (id, line),
  constraint version_of_item unique (id, item),
  constraint version_made_by check (made_by in ('FILED','CHECKED_IN','REINSTATED','ADOPTED','STAMPED','TAKEN_IN','REWRITTEN','TAKEN_UP')),
  key version_item (item, number),
  key version_author (author, at),
  constraint version_line foreign key (line, item) references line (id, item),
  constraint version_revision foreign key (revision, item) references revision (id, item),
  constraint version_author foreign key (author) references person (id),
  constraint version_base foreign key (base) references version (id),
  constraint version_substance foreign key (substance) references version (id),
  constraint version_copy_of foreign key (copy_of) references version (id)
);

-- The version with which a revision was released.
alter table revision add foreign key if not exists revision_released_version (released_version) references version (id);

-- The head of a line is a version of that line.
alter table line add foreign key if not exists line_head (head_version, id) references version (id, line);

-- A trial begins at a version of its document, and is adopted as one.
alter table line add foreign key if not exists line_from (from_version, item) references version (id, item);
alter table line add foreign key if not exists line_adopted (adopted_as, item) references version (id, item);

-- The content of a version, by role.
create table if not exists version_file (
  version bigint not null,
  role varchar(10) character set ascii collate ascii_bin not null,
  content bigint not null,
  file_name varchar(200) not null,
  primary key (version, role),
  key version_file_content (content),
  constraint version_file_role check (role in ('MAIN')),
  constraint version_file_version foreign key (version) references version (id),
  constraint version_file_content foreign key (content) references content (id)
);

-- What lies beside the file of a version in an open form.
create table if not exists neutral_copy (
  version bigint not null,
  form varchar(10) character set ascii collate ascii_bin not null,
  content bigint not null,
  file_name varchar(200) not null,
  person bigint not null,
  at datetime(6) not null,
  primary key (version, form),
  key neutral_copy_content (content),
  constraint neutral_copy_form check (form in ('DXF','STEP','THREE_MF','STL','PDF','SVG','PNG','JPEG','TIFF')),
  constraint neutral_copy_version foreign key (version) references version (id),
  constraint neutral_copy_content foreign key (content) references content (id),
  constraint neutral_copy_person foreign key (person) references person (id)
);

-- A fact of a revision, typed.
create table if not exists fact_value (
  revision bigint not null,
  fact bigint not null,
  text_value varchar(500) null,
  number_value decimal(30,10) null,
  date_value date null,
  primary key (revision, fact),
  key fact_value_text (fact, text_value(100)),
  key fact_value_number (fact, number_value),
  constraint fact_value_revision foreign key (revision) references revision (id),
  constraint fact_value_fact foreign key (fact) references fact (id)
);

-- Who changed a title or a fact of a revision: with who made its versions, those who do not sign it.
create table if not exists revision_hand (
  revision bigint not null,
  person bigint not null,
  primary key (revision, person),
  constraint revision_hand_revision foreign key (revision) references revision (id),
  constraint revision_hand_person foreign key (person) references person (id)
);

-- Which document took the place of one that was withdrawn.
create table if not exists successor (
  item bigint not null primary key,
  successor bigint not null,
  named_by bigint not null,
  named_at datetime(6) not null,
  constraint successor_other check (item <> successor),
  constraint successor_item foreign key (item) references item (id),
  constraint successor_successor foreign key (successor) references item (id),
  constraint successor_person foreign key (named_by) references person (id)
);
