-- Papers of change: requests and orders, their lines, what they go by.

-- A paper of a change: the paper is an item of its own; what it changes are its lines.
create table if not exists paper (
  item bigint not null primary key,
  type varchar(8) character set ascii collate ascii_bin not null,
  reason varchar(2000) not null,
  cause varchar(40) character set ascii collate ascii_bin not null default '',
  priority varchar(8) character set ascii collate ascii_bin not null default 'USUAL',
  deferred_until date null,
  notice bigint null,
  carried_out_at datetime(6) null,
  ended_why varchar(500) null,
  effective_by varchar(8) character set ascii collate ascii_bin null,
  effective_from varchar(60) null,
  constraint paper_effective check ((effective_by is null) = (effective_from is null) and effective_by in ('DATE','SERIAL','LOT')),
  constraint paper_type check (type in ('REQUEST','ORDER')),
  constraint paper_priority check (priority in ('USUAL','SOON','NOW')),
  constraint paper_item foreign key (item) references item (id),
  constraint paper_notice foreign key (notice) references item (id)
);

-- A document on a paper. Open orders on one document have turns: the first one is worked on, the next waits for it.
create table if not exists paper_line (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  position int not null,
  item bigint not null,
  what varchar(12) character set ascii collate ascii_bin not null,
  reason varchar(500) not null,
  interchangeable tinyint(1) not null default 1,
  from_revision bigint null,
  to_revision bigint null,
  successor bigint null,
  turn smallint null check (turn >= 1),
  constraint paper_line_item_once unique (paper, item),
  constraint paper_line_turn unique (item, turn),
  key paper_line_revision (to_revision),
  constraint paper_line_what check (what in ('REVISE','FIRST','NEW','WITHDRAW','FACTS')),
  constraint paper_line_successor check (successor is null or (what = 'WITHDRAW' and successor <> item)),
  constraint paper_line_paper foreign key (paper) references paper (item),
  constraint paper_line_item foreign key (item) references item (id),
  constraint paper_line_from foreign key (from_revision, item) references revision (id, item),
  constraint paper_line_to foreign key (to_revision, item) references revision (id, item),
  constraint paper_line_instead foreign key (successor) references item (id)
);

-- Where a paper stands, kept by the triggers that follow: what lists, counts and the flow of thousands ask for stands in one table.
create table if not exists paper_stand (
  paper bigint not null primary key,
  revision bigint not null,
  type varchar(8) character set ascii collate ascii_bin not null,
  cause varchar(40) character set ascii collate ascii_bin not null,
  shelf bigint not null,
  author bigint not null,
  entered datetime(6) not null,
  class varchar(20) character set ascii collate ascii_bin not null,
  stage varchar(60) not null,
  since datetime(6) not null,
  dropped tinyint(1) not null,
  key paper_stand_class (dropped, class, stage, since, paper),
  key paper_stand_since (dropped, since),
  key paper_stand_author (author, type, entered),
  constraint paper_stand_paper foreign key (paper) references paper (item)
);

-- How long papers stayed at the stages that they left.
create table if not exists paper_stay (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  stage varchar(60) not null,
  entered datetime(6) not null,
  passed datetime(6) not null,
  key paper_stay_passed (passed, stage, entered, paper),
  constraint paper_stay_paper foreign key (paper) references paper (item)
);

-- A paper comes to the flow.
create or replace trigger paper_stand_begins after insert on paper for each row
  insert into paper_stand (paper, revision, type, cause, shelf, author, entered, class, stage, since, dropped)
  select i.id, r.id, new.type, new.cause, i.shelf, i.author, i.created_at, g.class, g.name, r.stage_since, i.dropped_at is not null or r.dropped_at is not null
  from item i join revision r on r.item = i.id join stage g on g.edition = r.edition and g.code = r.stage where i.id = new.item order by r.ordinal desc limit 1;

-- A paper is counted under another cause.
create or replace trigger paper_stand_cause after update on paper for each row
  update paper_stand set cause = new.cause where paper = new.item and new.cause <> old.cause;

-- A paper that is written anew stands where its new revision does.
create or replace trigger paper_stand_revision after insert on revision for each row
  update paper_stand s join stage g on g.edition = new.edition and g.code = new.stage
  set s.revision = new.id, s.class = g.class, s.stage = g.name, s.since = new.stage_since, s.dropped = 0 where s.paper = new.item;

-- A paper leaves a stage; one that is put on another edition of its route stays where it is. Before its new place is known.
create or replace trigger paper_stay_ends after update on revision for each row
  insert into paper_stay (paper, stage, entered, passed)
  select s.paper, s.stage, old.stage_since, new.stage_since from paper_stand s
  where s.paper = new.item and s.revision = new.id and old.stage_since < new.stage_since;

-- A paper moves, or is dropped.
create or replace trigger paper_stand_moves after update on revision for each row follows paper_stay_ends
  update paper_stand s join stage g on g.edition = new.edition and g.code = new.stage
  set s.class = g.class, s.stage = g.name, s.since = new.stage_since, s.dropped = s.dropped or new.dropped_at is not null
  where s.paper = new.item and s.revision = new.id;

-- A paper is filed elsewhere, or dropped with its document.
create or replace trigger paper_stand_place after update on item for each row
  update paper_stand set shelf = new.shelf, dropped = dropped or new.dropped_at is not null
  where paper = new.id and (new.shelf <> old.shelf or (new.dropped_at is not null and old.dropped_at is null));

-- Held by whoever lets an order wait for another one: so that no two of them close a ring that neither sees.
create table if not exists sequence_gate (id smallint not null primary key check (id = 1)) select 1 as id;

-- What a line that changes facts only says a fact will be; an empty value empties it.
create table if not exists paper_fact (
  paper bigint not null,
  item bigint not null,
  fact bigint not null,
  wanted varchar(500) not null,
  primary key (paper, item, fact),
  constraint paper_fact_line foreign key (paper, item) references paper_line (paper, item) on delete cascade,
  constraint paper_fact_fact foreign key (fact) references fact (id)
);

-- The variants of its document that a line is about; without any it is about all of it.
create table if not exists paper_variant (
  paper bigint not null,
  item bigint not null,
  seq int not null,
  name varchar(40) not null,
  primary key (paper, item, seq),
  constraint paper_variant_line foreign key (paper, item) references paper_line (paper, item) on delete cascade
);

-- A request that an order takes up; one order at most.
create table if not exists order_request (
  request bigint not null primary key,
  change_order bigint not null,
  key order_request_order (change_order),
  constraint order_request_request foreign key (request) references paper (item),
  constraint order_request_order foreign key (change_order) references paper (item)
);

-- What a paper goes by: an exact version of a document, alone or beside an older one of it.
create table if not exists paper_evidence (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  version bigint not null,
  against bigint null,
  note varchar(300) not null,
  chapter varchar(300) not null default '',
  page int not null default 0,
  added_by bigint not null,
  constraint paper_evidence_once unique (paper, version, against, page),
  constraint paper_evidence_paper foreign key (paper) references paper (item),
  constraint paper_evidence_version foreign key (version) references version (id),
  constraint paper_evidence_against foreign key (against) references version (id),
  constraint paper_evidence_person foreign key (added_by) references person (id)
);

-- What is to be true of a fact of a line afterwards; a percentage is of what it was before.
create table if not exists paper_goal (
  id bigint not null auto_increment primary key,
  paper bigint not null,
  item bigint not null,
  fact bigint not null,
  relation varchar(8) character set ascii collate ascii_bin not null,
  wanted varchar(200) not null,
  percent tinyint(1) not null,
  constraint paper_goal_relation check (relation in ('AT_MOST','AT_LEAST','EQUAL')),
  constraint paper_goal_line foreign key (paper, item) references paper_line (paper, item) on delete cascade,
  constraint paper_goal_fact foreign key (fact) references fact (id)
);

-- What an order shows for a goal of a request that it has taken up: an exact version, alone or beside an older one of it.
create table if not exists goal_shown (
  goal bigint not null primary key,
  change_order bigint not null,
  version bigint not null,
  against bigint null,
  note varchar(300) not null,
  shown_by bigint not null,
  key goal_shown_order (change_order),
  constraint goal_shown_goal foreign key (goal) references paper_goal (id) on delete cascade,
  constraint goal_shown_order_there foreign key (change_order) references paper (item),
  constraint goal_shown_version foreign key (version) references version (id),
  constraint goal_shown_against foreign key (against) references version (id),
  constraint goal_shown_person foreign key (shown_by) references person (id)
);

-- What people say of a document that a change reaches: whether it keeps its number once revised, or what it is against the rule.
create table if not exists paper_reach (
  paper bigint not null,
  item bigint not null,
  interchangeable tinyint(1) null,
  verdict varchar(12) character set ascii collate ascii_bin null,
  why varchar(300) not null,
  person bigint not null,
  said_at datetime(6) not null,
  primary key (paper, item),
  constraint paper_reach_verdict check (verdict in ('TAKES','ALONG','REVISED','NEW_NUMBER','SPARED')),
  constraint paper_reach_paper foreign key (paper) references paper (item),
  constraint paper_reach_item foreign key (item) references item (id),
  constraint paper_reach_person foreign key (person) references person (id)
);

-- What becomes of the old ones of a line, at one place where they are; an empty quantity is one that nobody knows.
create table if not exists paper_disposition (
  paper bigint not null,
  item bigint not null,
  place varchar(12) character set ascii collate ascii_bin not null,
  quantity decimal(15,3) null,
  what varchar(8) character set ascii collate ascii_bin null,
  cost decimal(15,2) null,
  currency char(3) character set ascii collate ascii_bin null,
  note varchar(200) not null,
  said_by bigint not null,
  said_at datetime(6) not null,
  primary key (paper, item, place),
  constraint paper_disposition_place check (place in ('STOCK','ORDERED','MAKING','FIELD')),
  constraint paper_disposition_what check (what in ('USE','REWORK','RETURN','SCRAP')),
  constraint paper_disposition_amounts check (quantity >= 0 and cost >= 0),
  constraint paper_disposition_currency check ((cost is null) = (currency is null)),
  constraint paper_disposition_line foreign key (paper, item) references paper_line (paper, item) on delete cascade,
  constraint paper_disposition_person foreign key (said_by) references person (id)
);

-- Who is told of a notice besides those whom the house tells, and who of them is not.
create table if not exists paper_told (
  paper bigint not null,
  person bigint not null,
  told tinyint(1) not null,
  primary key (paper, person),
  constraint paper_told_paper foreign key (paper) references paper (item),
  constraint paper_told_person foreign key (person) references person (id)
);

-- Work that somebody gives: to a person, or to a group, of which the first to take it has it.
create table if not exists job (
  id bigint not null auto_increment primary key,
  paper bigint null,
  what varchar(500) not null,
  for_group bigint null,
  person bigint null,
  due date null,
  state varchar(8) character set ascii collate ascii_bin not null,
  given_by bigint not null,
  given_at datetime(6) not null,
  begun_at datetime(6) null,
  ended_at datetime(6) null,
  ended_by bigint null,
  late_told tinyint(1) not null default 0,
  key job_of (person, state),
  key job_paper (paper),
  key job_group (for_group, state),
  key job_due (state, late_told, due),
  constraint job_state check (state in ('GIVEN','BEGUN','DONE','DROPPED')),
  constraint job_whose check (person is not null or (for_group is not null and state in ('GIVEN','DROPPED'))),
  constraint job_for_paper foreign key (paper) references paper (item),
  constraint job_for_group foreign key (for_group) references person_group (id),
  constraint job_person foreign key (person) references person (id),
  constraint job_giver foreign key (given_by) references person (id),
  constraint job_ender foreign key (ended_by) references person (id)
);

-- The documents of a job, and the version with which each was done.
create table if not exists job_item (
  job bigint not null,
  item bigint not null,
  version bigint null,
  primary key (job, item),
  key job_item_item (item),
  constraint job_item_job foreign key (job) references job (id),
  constraint job_item_item_there foreign key (item) references item (id),
  constraint job_item_version foreign key (version) references version (id)
);
