using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace MillCard.Store.Tables;

/// <summary>Real prints, as they stand in the database.</summary>
internal sealed class PrintTable : IEntityTypeConfiguration<PrintRow>
{
    public void Configure(EntityTypeBuilder<PrintRow> print)
    {
        print.ToTable("print");
        print.HasKey(p => p.Id);
        print.Property(p => p.Id).HasColumnName("id").ValueGeneratedNever();
        print.Property(p => p.CardId).HasColumnName("card_id");
        print.Property(p => p.Record).HasColumnName("record").HasColumnType("jsonb");
        print.Property(p => p.Picture).HasColumnName("picture");
        print.Property(p => p.At).HasColumnName("at");
        print.HasIndex(p => new { p.CardId, p.At });
        print.HasOne<DocumentRow>().WithMany().HasForeignKey(p => p.CardId).OnDelete(DeleteBehavior.Cascade);
        print.HasOne<BlobRow>().WithMany().HasForeignKey(p => p.Picture).OnDelete(DeleteBehavior.Restrict);
    }
}
