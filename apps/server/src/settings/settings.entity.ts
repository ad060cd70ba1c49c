import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity('setting')
export class SettingEntity {
  @PrimaryColumn('text')
  name!: string;
  @Column('simple-json')
  value!: unknown;
}
