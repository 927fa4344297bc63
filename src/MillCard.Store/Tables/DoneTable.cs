using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>What was done once, as they stand in the database.</summary>
internal sealed class DoneTable : IEntityTypeConfiguration<DoneRow>
{
    public void Configure(EntityTypeBuilder<DoneRow> done)
    {
        done.ToTable("done");
        done.HasKey(d => d.Name);
        done.Property(d => d.Name).HasColumnName("name");
        done.Property(d => d.At).HasColumnName("at");
    }
}
