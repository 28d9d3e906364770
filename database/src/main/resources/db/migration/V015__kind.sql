-- What a document is: fixes its route, its two series and its facts.
create table if not exists kind (
  id bigint not null auto_increment primary key,
  code varchar(40) character set ascii collate ascii_bin not null,
  name varchar(80) not null,
  aspect varchar(10) character set ascii collate ascii_bin not null,
  glyph varchar(20) character set ascii collate ascii_bin not null,
  number_series bigint not null,
  revision_series varchar(200) not null,
  label_taken varchar(10) character set ascii collate ascii_bin not null,
  route bigint not null,
  position int not null,
  constraint kind_code unique (code),
  constraint kind_aspect check (aspect in ('DRAWING','MODEL','PAPER','PART')),
  constraint kind_label_taken check (label_taken in ('START','RELEASE')),
  constraint kind_number_series foreign key (number_series) references number_series (id),
  constraint kind_route foreign key (route) references route (id)
);
