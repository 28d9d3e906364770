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
