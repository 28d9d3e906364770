-- People, how they sign in, what they chose.

-- A person. People are never deleted: they leave, and their contact data is blanked.
create table if not exists person (
  id bigint not null auto_increment primary key,
  login varchar(100) not null,
  login_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  name varchar(200) not null,
  password_hash varchar(200) null,
  mail varchar(254) not null default '',
  telephone varchar(60) not null default '',
  note varchar(300) not null default '',
  zone varchar(60) not null default 'UTC',
  away_from date null,
  away_until date null,
  stands_in bigint null,
  left_at datetime(6) null,
  created_at datetime(6) not null,
  constraint person_login unique (login_key),
  constraint person_stands_in foreign key (stands_in) references person (id)
);

-- A link that lets a person set a password. Only the hash of the token is kept.
create table if not exists invitation (
  token_hash binary(32) not null primary key,
  person bigint not null,
  expires_at datetime(6) not null,
  used_at datetime(6) null,
  constraint invitation_person foreign key (person) references person (id)
);

-- What a person chose for their own pages.
create table if not exists person_setting (
  person bigint not null,
  name varchar(60) character set ascii collate ascii_bin not null,
  value varchar(2000) not null,
  primary key (person, name),
  constraint person_setting_person foreign key (person) references person (id)
);

-- A group of people; groups may stand wherever a person may.
create table if not exists person_group (
  id bigint not null auto_increment primary key,
  name varchar(100) not null,
  name_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  constraint person_group_name unique (name_key)
);

-- What a group sees on pages of its people who chose nothing themselves.
create table if not exists group_setting (
  person_group bigint not null,
  name varchar(60) character set ascii collate ascii_bin not null,
  value varchar(2000) not null,
  primary key (person_group, name),
  constraint group_setting_group foreign key (person_group) references person_group (id) on delete cascade
);

-- Who is signed in by the house's sign-on, by what it calls them for ever: the hash of issuer and subject.
create table if not exists person_sign_on (
  subject binary(32) not null primary key,
  person bigint not null,
  since datetime(6) not null,
  constraint person_sign_on_person foreign key (person) references person (id)
);

-- Who belongs to which group; by the house's sign-on where that says so.
create table if not exists group_member (
  person_group bigint not null,
  person bigint not null,
  by_sign_on tinyint(1) not null default 0,
  primary key (person_group, person),
  key group_member_person (person),
  constraint group_member_group foreign key (person_group) references person_group (id),
  constraint group_member_person foreign key (person) references person (id)
);

-- The sessions of signed-in people, kept where every node finds them.
CREATE TABLE IF NOT EXISTS SPRING_SESSION (
  PRIMARY_ID CHAR(36) NOT NULL,
  SESSION_ID CHAR(36) NOT NULL,
  CREATION_TIME BIGINT NOT NULL,
  LAST_ACCESS_TIME BIGINT NOT NULL,
  MAX_INACTIVE_INTERVAL INT NOT NULL,
  EXPIRY_TIME BIGINT NOT NULL,
  PRINCIPAL_NAME VARCHAR(100),
  PRIMARY KEY (PRIMARY_ID),
  UNIQUE KEY SPRING_SESSION_IX1 (SESSION_ID),
  KEY SPRING_SESSION_IX2 (EXPIRY_TIME),
  KEY SPRING_SESSION_IX3 (PRINCIPAL_NAME)
);

-- What a session holds.
CREATE TABLE IF NOT EXISTS SPRING_SESSION_ATTRIBUTES (
  SESSION_PRIMARY_ID CHAR(36) NOT NULL,
  ATTRIBUTE_NAME VARCHAR(200) NOT NULL,
  ATTRIBUTE_BYTES MEDIUMBLOB NOT NULL,
  PRIMARY KEY (SESSION_PRIMARY_ID, ATTRIBUTE_NAME),
  CONSTRAINT SPRING_SESSION_ATTRIBUTES_FK FOREIGN KEY (SESSION_PRIMARY_ID) REFERENCES SPRING_SESSION (PRIMARY_ID) ON DELETE CASCADE
);

-- Failed sign-ins, counted by account and by address on every node.
create table if not exists sign_in_attempt (
  id bigint not null auto_increment primary key,
  account_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  address varchar(60) character set ascii collate ascii_bin not null,
  at datetime(6) not null,
  key sign_in_attempt_account (account_key, at),
  key sign_in_attempt_address (address, at)
);

-- The code that an empty server prints on its console, by its hash: who knows it begins, once.
create table if not exists first_start (
  id int not null primary key,
  code_hash binary(32) not null,
  used_at datetime(6) null
);
