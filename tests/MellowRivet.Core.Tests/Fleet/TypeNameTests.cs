using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Tests.Fleet;

// domain.md section 16: people write the same type five ways; a directive goes by the model designation on the data plate.
// Which of these spellings are the same model, which a question and which another model was set down by hand.
public class TypeNameTests
{
    [Theory]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "pellworth dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "PELLWORTH DUNLIN 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth  Dunlin  2")]
    [InlineData("Pellworth Dunlin 2", " Pellworth Dunlin 2 ")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin-2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth, Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "PellworthDunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth/Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth “Dunlin” 2")]
    [InlineData("Lindqvale Tarn M", "Lindqvale Tarn-M")]
    [InlineData("TF4-160", "TF4 160")]
    [InlineData("TF4-160", "tf4-160")]
    [InlineData("TF4-160", "TF 4-160")]
    [InlineData("TF4-160", "TF-4-160")]
    [InlineData("TF4-160", "TF4/160")]
    [InlineData("TF4-160", "TF4.160")]
    [InlineData("LQ4-A", "LQ4A")]
    [InlineData("LQ4-A", "lq 4 a")]
    [InlineData("WP-52-4F", "WP52-4F")]
    [InlineData("WP-52-4F", "WP 52/4 F")]
    [InlineData("AL-20", "AL 20")]
    [InlineData("AL-20", "al20")]
    public void The_same_model_however_it_is_spaced(string one, string other) => Both(one, other).ShouldBe(NameMatch.Same);

    [Theory]
    [InlineData("Pellworth Dunlin 2", "Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth 2 Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pelworth Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pellwroth Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlun 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunin 2")]
    [InlineData("Pellworth Dunlin 2", "Pelworth Dunlun 2")]
    [InlineData("Pellworth Dunlin 2", "Pelwort Dunlin 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin II")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin two")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin")]
    [InlineData("Pellworth Dunlin 2", "Pellworth 2")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 2A")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 2 LX")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 2 trainer")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Aero Dunlin 2")]
    [InlineData("Ostrand Corrin 6", "Ostrand Corin 6")]
    [InlineData("Ostrand Corrin 6", "Ostrand Corrinn 6")]
    [InlineData("Ostrand Corrin 6", "Ostrand Corrin VI")]
    [InlineData("Ostrand Corrin 4", "Ostrand Corrin 4T")]
    [InlineData("Lindqvale Tarn M", "Lindqvale Tarn")]
    [InlineData("Lindqvale Tarn M", "Lindqval Tarn M")]
    [InlineData("Lindqvale Tarn M", "Lindqvalé Tarn M")]
    [InlineData("TF4-160", "TF4160")]
    [InlineData("TF4-160", "TF4-16O")]
    [InlineData("TF4-160", "TF4-106")]
    [InlineData("TF4-160", "TF4-1600")]
    [InlineData("TF4-160", "TF4-16")]
    [InlineData("TF4-160", "TF4-160B")]
    [InlineData("TF4-160", "TF4")]
    [InlineData("TF4-160", "TF-160")]
    [InlineData("LQ4-A", "LQ4")]
    [InlineData("WP-52-4F", "WP-52")]
    [InlineData("WP-52-4F", "WP-524F")]
    [InlineData("AL-20", "AL-2O")]
    [InlineData("AL-20", "AL-20M")]
    public void A_slip_of_the_pen_is_a_question(string one, string other) => Both(one, other).ShouldBe(NameMatch.Near);

    [Theory]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 4")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 3")]
    [InlineData("Pellworth Dunlin 2", "Pellworth Dunlin 12")]
    [InlineData("Pellworth Dunlin 2", "Ostrand Corrin 2")]
    [InlineData("Pellworth Dunlin 2", "Ostrand Corrin 6")]
    [InlineData("Pellworth Dunlin 2", "Dunlin 4")]
    [InlineData("Pellworth Dunlin 2", "2")]
    [InlineData("Pellworth Dunlin 2", "")]
    [InlineData("Ostrand Corrin 6", "Ostrand Corrin 4T")]
    [InlineData("Lindqvale Tarn M", "Lindqvale Tarn L")]
    [InlineData("Lindqvale Tarn M", "Brindle Mote LS")]
    [InlineData("TF4-160", "TF4-180")]
    [InlineData("TF4-160", "TF6-160")]
    [InlineData("TF4-160", "TS4-160")]
    [InlineData("TF4-160", "SF6-260")]
    [InlineData("LQ4-A", "LQ4-B")]
    [InlineData("LQ4-A", "LQ6-A")]
    [InlineData("WP-52-4F", "WP-52-6F")]
    [InlineData("WP-52-4F", "WP-76C")]
    [InlineData("AL-20", "TX-30")]
    [InlineData("TX-30", "TX-31")]
    public void Another_figure_or_another_letter_that_stands_alone_is_another_model(string one, string other) =>
        Both(one, other).ShouldBe(NameMatch.Other);

    [Fact]
    public void A_name_of_a_megabyte_is_told_apart_at_once()
    {
        string one = new('a', 1_000_000), other = new('b', 1_000_000);
        (ModelName.Compare(one, other), ModelName.Compare(one, one)).ShouldBe((NameMatch.Other, NameMatch.Same));
    }

    private static NameMatch Both(string one, string other)
    {
        ModelName.Compare(other, one).ShouldBe(ModelName.Compare(one, other), "it is the same question from both sides");
        return ModelName.Compare(one, other);
    }
}
