-- Rounds: who is asked, and what they signed.

-- Documents sent along a route together and decided together.
create table if not exists bundle (
  id bigint not null auto_increment primary key,
  opened_by bigint not null,
  opened_at datetime(6) not null,
  closed_at datetime(6) null,
  constraint bundle_opened_by foreign key (opened_by) references person (id)
);

-- A document is in one open bundle at most.
create table if not exists bundle_item (
  bundle bigint not null,
  item bigint not null,
  position int not null,
  open_mark smallint null check (open_mark = 1),
  primary key (bundle, item),
  constraint bundle_item_open unique (item, open_mark),
  constraint bundle_item_bundle foreign key (bundle) references bundle (id),
  constraint bundle_item_item foreign key (item) references item (id)
);

-- One sending to review.
create table if not exists round (
  id bigint not null auto_increment primary key,
  bundle bigint not null,
  opened_by bigint not null,
  opened_at datetime(6) not null,
  note varchar(1000) not null,
  state varchar(12) character set ascii collate ascii_bin not null,
  policy varchar(16) character set ascii collate ascii_bin not null,
  open_mark smallint null check (open_mark = 1),
  ended_at datetime(6) null,
  ended_by bigint null,
  ended_why varchar(1000) null,
  constraint round_open unique (bundle, open_mark),
  constraint round_state check (state in ('OPEN','SIGNED','RETURNED','TAKEN_BACK')),
  constraint round_policy check (policy in ('FIRST_RETURN','EVERYBODY_HEARD')),
  constraint round_open_or_ended check ((open_mark is null) = (ended_at is not null)),
  constraint round_bundle foreign key (bundle) references bundle (id),
  constraint round_opened_by foreign key (opened_by) references person (id),
  constraint round_ended_by foreign key (ended_by) references person (id)
);

-- The exact version of a document that a round decides on, and the digest that its sign-offs bind to.
create table if not exists round_item (
  round bigint not null,
  item bigint not null,
  version bigint not null,
  digest binary(32) not null,
  primary key (round, item),
  key round_item_version (version),
  constraint round_item_round foreign key (round) references round (id),
  constraint round_item_item foreign key (item) references item (id),
  constraint round_item_version foreign key (version) references version (id)
);

-- Who is asked in a round, for what, until when.
create table if not exists ask (
  id bigint not null auto_increment primary key,
  round bigint not null,
  step int not null,
  role varchar(40) character set ascii collate ascii_bin null,
  person_group bigint null,
  rule_person bigint null,
  person bigint null,
  needed int not null,
  meaning varchar(60) not null,
  fact varchar(60) not null,
  day_fact varchar(60) not null,
  days int not null,
  four_eyes boolean not null,
  password_again boolean not null,
  due date not null,
  constraint ask_whom check ((role is not null) + (person_group is not null) + (rule_person is not null) = 1),
  constraint ask_group foreign key (person_group) references person_group (id),
  constraint ask_rule_person foreign key (rule_person) references person (id),
  constraint ask_round_id unique (id, round),
  key ask_person (person),
  constraint ask_needed check (needed > 0),
  constraint ask_round foreign key (round) references round (id),
  constraint ask_role foreign key (role) references role (code),
  constraint ask_person foreign key (person) references person (id)
);

-- One person's decision on one document of a round; bound to its digest. A person answers an ask once while it stands.
create table if not exists sign_off (
  id bigint not null auto_increment primary key,
  ask bigint not null,
  round bigint not null,
  item bigint not null,
  version bigint not null,
  digest binary(32) not null,
  person bigint not null,
  decision varchar(12) character set ascii collate ascii_bin not null,
  remark varchar(2000) not null,
  for_person bigint null,
  at datetime(6) not null,
  standing_mark smallint null check (standing_mark = 1),
  fell_at datetime(6) null,
  fell_why varchar(500) null,
  constraint sign_off_once unique (ask, item, person, standing_mark),
  constraint sign_off_stands_or_fell check ((standing_mark is null) = (fell_at is not null)),
  constraint sign_off_decision check (decision in ('SIGNED','REMARKED','RETURNED','ABSTAINED')),
  key sign_off_version (version),
  constraint sign_off_ask foreign key (ask, round) references ask (id, round),
  constraint sign_off_item foreign key (round, item) references round_item (round, item),
  constraint sign_off_version foreign key (version) references version (id),
  constraint sign_off_person foreign key (person) references person (id),
  constraint sign_off_for foreign key (for_person) references person (id)
);

-- What was said again of a question that waits: by itself once for its due day, by a hand once a day.
create table if not exists reminder (
  ask bigint not null,
  kind varchar(10) character set ascii collate ascii_bin not null,
  day date not null,
  by_person bigint null,
  at datetime(6) not null,
  primary key (ask, kind, day),
  constraint reminder_kind check (kind in ('BEFORE','AFTER','RAISED','HAND')),
  constraint reminder_ask foreign key (ask) references ask (id),
  constraint reminder_person foreign key (by_person) references person (id)
);

-- What the checks said of a document when it was sent, the heaviest first. One row without words: every rule was kept.
create table if not exists round_finding (
  round bigint not null,
  item bigint not null,
  seq int not null,
  version bigint not null,
  binding boolean not null,
  zone varchar(8) not null,
  says varchar(500) not null,
  waived varchar(500) null,
  primary key (round, item, seq),
  constraint round_finding_item foreign key (round, item) references round_item (round, item),
  constraint round_finding_version foreign key (version) references version (id)
);

-- What a sender laid beside a round, to look at and not decided: a version, or what differs between two.
create table if not exists round_beside (
  round bigint not null,
  seq int not null,
  version bigint not null,
  old_version bigint null,
  primary key (round, seq),
  constraint round_beside_round foreign key (round) references round (id),
  constraint round_beside_version foreign key (version) references version (id),
  constraint round_beside_old foreign key (old_version) references version (id)
);

-- The sheets of a round that somebody who is asked has opened. For their own eyes: it is no statement.
create table if not exists round_opened (
  person bigint not null,
  round bigint not null,
  item bigint not null,
  version bigint not null,
  primary key (round, person, item),
  constraint round_opened_item foreign key (round, item) references round_item (round, item),
  constraint round_opened_person foreign key (person) references person (id),
  constraint round_opened_version foreign key (version) references version (id)
);

-- A finding that is let pass in words, for one revision.
create table if not exists waiver (
  id bigint not null auto_increment primary key,
  revision bigint not null,
  finding varchar(500) not null,
  words varchar(500) not null,
  person bigint not null,
  at datetime(6) not null,
  ended_at datetime(6) null,
  key waiver_revision (revision),
  constraint waiver_of_revision foreign key (revision) references revision (id),
  constraint waiver_person foreign key (person) references person (id)
);

-- A mark over a version of a document, with what is said of it. Its number is its document's own, by zone; its uid is known outside;
-- who wrote it there is named in outside, whoever took it in is its author.
create table if not exists remark (
  id bigint not null auto_increment primary key,
  uid char(36) character set ascii collate ascii_bin not null,
  outside varchar(200) not null,
  item bigint not null,
  version bigint not null,
  layout varchar(255) not null,
  zone varchar(4) character set ascii collate ascii_bin not null,
  seq int not null,
  kind varchar(10) character set ascii collate ascii_bin not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  line varchar(90) not null,
  description varchar(2000) not null,
  tool varchar(12) character set ascii collate ascii_bin not null,
  mark mediumtext not null check (json_valid(mark)),
  author bigint not null,
  round bigint null,
  at datetime(6) not null,
  constraint remark_uid unique (item, uid),
  constraint remark_number unique (item, zone, seq),
  key remark_item_state (item, state, kind),
  key remark_author (author, state),
  constraint remark_kind check (kind in ('CHANGE','QUESTION','NOTE')),
  constraint remark_state check (state in ('OPEN','ANSWERED','DONE','DECLINED','WITHDRAWN')),
  constraint remark_item foreign key (item) references item (id),
  constraint remark_version foreign key (version) references version (id),
  constraint remark_author_person foreign key (author) references person (id),
  constraint remark_round foreign key (round) references round (id)
);

-- The thread of a remark: words, and what it was set to with them.
create table if not exists remark_reply (
  id bigint not null auto_increment primary key,
  uid char(36) character set ascii collate ascii_bin not null,
  outside varchar(200) not null,
  remark bigint not null,
  person bigint not null,
  at datetime(6) not null,
  says varchar(2000) not null,
  state varchar(10) character set ascii collate ascii_bin null,
  constraint remark_reply_uid unique (remark, uid),
  constraint remark_reply_state check (state is null or state in ('OPEN','ANSWERED','DONE','DECLINED','WITHDRAWN')),
  constraint remark_reply_says_something check (says <> '' or state is not null),
  constraint remark_reply_remark foreign key (remark) references remark (id),
  constraint remark_reply_person foreign key (person) references person (id)
);

-- The look in which somebody draws, where they chose one.
create table if not exists remark_look (
  person bigint not null primary key,
  colour varchar(10) character set ascii collate ascii_bin not null,
  letters decimal(4,1) not null,
  constraint remark_look_person foreign key (person) references person (id)
);

-- A release that is made by itself when nothing is in its way any more.
create table if not exists release_wish (
  id bigint not null auto_increment primary key,
  person bigint not null,
  named varchar(200) not null,
  remark varchar(500) not null,
  asked_at datetime(6) not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  ended_at datetime(6) null,
  ended_by bigint null,
  ended_why varchar(500) not null,
  next_at datetime(6) not null,
  lease_until datetime(6) null,
  tries int not null,
  key release_wish_waiting (state, next_at),
  key release_wish_person (person, id),
  constraint release_wish_state check (state in ('WAITING','DONE','TAKEN_BACK','STOPPED')),
  constraint release_wish_ended check ((state = 'WAITING') = (ended_at is null)),
  constraint release_wish_by foreign key (person) references person (id),
  constraint release_wish_ended_by foreign key (ended_by) references person (id)
);

-- What was to move then; asked for itself, or going along; at which version it was ready, none where something was in its way.
create table if not exists release_wish_item (
  wish bigint not null,
  position int not null,
  item bigint not null,
  asked boolean not null,
  ready_version int null,
  open_mark smallint null check (open_mark = 1),
  primary key (wish, position),
  key release_wish_item_open (item, open_mark),
  constraint release_wish_item_wish foreign key (wish) references release_wish (id),
  constraint release_wish_item_item foreign key (item) references item (id)
);

-- Whose opinion of a trial was asked, of exact versions; one asking at a time.
create table if not exists trial_round (
  id bigint not null auto_increment primary key,
  trial bigint not null,
  opened_by bigint not null,
  opened_at datetime(6) not null,
  note varchar(1000) not null,
  due date not null,
  open_mark smallint null check (open_mark = 1),
  ended_at datetime(6) null,
  ended_how varchar(12) character set ascii collate ascii_bin null,
  constraint trial_round_open unique (trial, open_mark),
  constraint trial_round_open_or_ended check ((open_mark is null) = (ended_at is not null)),
  constraint trial_round_ended_how check (ended_how is null or ended_how in ('ANSWERED','MOVED_ON','TAKEN_BACK','TRIAL_ENDED')),
  constraint trial_round_trial foreign key (trial) references trial (id),
  constraint trial_round_opened_by foreign key (opened_by) references person (id)
);

-- The exact version of each document that opinions are asked on.
create table if not exists trial_round_version (
  round bigint not null,
  version bigint not null,
  primary key (round, version),
  constraint trial_round_version_round foreign key (round) references trial_round (id),
  constraint trial_round_version_version foreign key (version) references version (id)
);

-- What one person says of a trial: asked, and once answered for it, for it with a remark, or against it.
create table if not exists trial_opinion (
  round bigint not null,
  person bigint not null,
  opinion varchar(10) character set ascii collate ascii_bin null,
  words varchar(2000) not null default '',
  at datetime(6) null,
  primary key (round, person),
  key trial_opinion_person (person, at),
  constraint trial_opinion_says check (opinion is null or opinion in ('FOR','REMARKED','AGAINST')),
  constraint trial_opinion_answered check ((opinion is null) = (at is null)),
  constraint trial_opinion_round foreign key (round) references trial_round (id),
  constraint trial_opinion_person foreign key (person) references person (id)
);
