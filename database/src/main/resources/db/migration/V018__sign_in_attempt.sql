-- Failed sign-ins, counted by account and by address on every node.
create table if not exists sign_in_attempt (
  id bigint not null auto_increment primary key,
  account_key varchar(100) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  address varchar(60) character set ascii collate ascii_bin not null,
  at datetime(6) not null,
  key sign_in_attempt_account (account_key, at),
  key sign_in_attempt_address (address, at)
);
