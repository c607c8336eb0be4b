using Mortar.Core.Letters;
using Xunit;

namespace Mortar.Core.Tests.Letters;

public class InboxCountTests
{
    [Fact]
    public void Each_question_and_each_piece_of_news_counts_and_mails_that_are_stuck_count_once()
    {
        Assert.Equal(0, InboxCount.Of([], news: 0, mailsAreStuck: false));
        Assert.Equal(6, InboxCount.Of([2, 0, 1], news: 3, mailsAreStuck: false));
        Assert.Equal(7, InboxCount.Of([2, 0, 1], news: 3, mailsAreStuck: true));
    }
}
